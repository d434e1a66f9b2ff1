import {
  BadRequestException,
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  PayloadTooLargeException,
  Post,
  StreamableFile,
  UploadedFiles,
  UseInterceptors,
} from '@nestjs/common';
import { FilesInterceptor } from '@nestjs/platform-express';
import {
  ApiBody,
  ApiConflictResponse,
  ApiConsumes,
  ApiOkResponse,
  ApiTags,
  ApiUnprocessableEntityResponse,
} from '@nestjs/swagger';
import { plainName } from '@fleet-rail/core/shots';
import { createReadStream } from 'node:fs';
import { MODEL_LIMIT } from '../settings.js';
import { ModelDto, PlacingDto } from './models.dto.js';
import { ModelsService } from './models.service.js';
import type { UploadedInMemory } from '../http/uploaded.js';

/** Files that a model may come in: more pictures than this are rarely in use. */
const MOST_FILES = 300;

@ApiTags('models')
@Controller('api/models')
export class ModelsController {
  constructor(private readonly models: ModelsService) {}

  @Get()
  @ApiOkResponse({ type: [ModelDto] })
  list(): Promise<ModelDto[]> {
    return this.models.list();
  }

  @Post()
  @UseInterceptors(
    FilesInterceptor('file', MOST_FILES, {
      limits: { fileSize: MODEL_LIMIT, files: MOST_FILES },
      // Folders distinguish files that another one names.
      preservePath: true,
    }),
  )
  @ApiConsumes('multipart/form-data')
  @ApiBody({
    schema: {
      type: 'object',
      properties: { file: { type: 'array', items: { type: 'string', format: 'binary' } } },
    },
  })
  @ApiUnprocessableEntityResponse({ description: 'Not a model that can be read; the message says why' })
  add(@UploadedFiles() files: readonly UploadedInMemory[] = []): Promise<ModelDto> {
    if (files.length === 0)
      throw new BadRequestException(
        'Expected a .glb or .gltf file, or another kind of model, with all it needs, in the field "file".',
      );
    const size = files.reduce((sum, file) => sum + file.size, 0);
    if (size > MODEL_LIMIT)
      throw new PayloadTooLargeException(
        `These files have ${Math.ceil(size / 2 ** 20)} MB together; at most ${MODEL_LIMIT / 2 ** 20} MB are taken.`,
      );
    const nameOf = ({ originalname }: UploadedInMemory) =>
      plainName(Buffer.from(originalname, 'latin1').toString('utf8')).slice(-200) || 'model.glb';
    return this.models.add(files.map((file) => ({ name: nameOf(file), bytes: file.buffer })));
  }

  @Post(':id/placed')
  @ApiOkResponse({ type: ModelDto, description: 'The same model placed otherwise, as one of its own' })
  place(@Param('id') id: string, @Body() { scale, translation, rotation }: PlacingDto): Promise<ModelDto> {
    return this.models.place(id, { scale, translation, rotation });
  }

  @Get(':id')
  open(@Param('id') id: string): Promise<ModelDto> {
    return this.models.open(id);
  }

  @Delete(':id')
  @HttpCode(204)
  @ApiConflictResponse({ description: 'Something uses it; the message says what' })
  delete(@Param('id') id: string): Promise<void> {
    return this.models.delete(id);
  }

  @Get(':id/file')
  async file(@Param('id') id: string): Promise<StreamableFile> {
    const { path, fileName } = await this.models.fileOf(id);
    return new StreamableFile(createReadStream(path), {
      type: /\.gltf$/i.test(fileName) ? 'model/gltf+json' : 'model/gltf-binary',
      disposition: `attachment; filename*=UTF-8''${encodeURIComponent(fileName)}`,
    });
  }
}
