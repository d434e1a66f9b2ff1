import {
  BadRequestException,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  Post,
  StreamableFile,
  UploadedFile,
  UseInterceptors,
} from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import {
  ApiBody,
  ApiConflictResponse,
  ApiConsumes,
  ApiOkResponse,
  ApiTags,
  ApiUnprocessableEntityResponse,
} from '@nestjs/swagger';
import { createReadStream } from 'node:fs';
import { MODEL_LIMIT } from '../settings.js';
import { ModelDto } from './models.dto.js';
import { ModelsService } from './models.service.js';

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
  @UseInterceptors(FileInterceptor('file', { limits: { fileSize: MODEL_LIMIT, files: 1 } }))
  @ApiConsumes('multipart/form-data')
  @ApiBody({ schema: { type: 'object', properties: { file: { type: 'string', format: 'binary' } } } })
  @ApiUnprocessableEntityResponse({ description: 'Not a model that can be read; the message says why' })
  add(@UploadedFile() file: Express.Multer.File | undefined): Promise<ModelDto> {
    if (file === undefined)
      throw new BadRequestException('Expected a .glb or .gltf file in the field "file".');
    // Multer reads names as Latin-1; browsers send UTF-8.
    const name = Buffer.from(file.originalname, 'latin1')
      .toString('utf8')
      .replace(/^.*[\\/]/, '')
      .slice(-200);
    return this.models.add(file.buffer, name || 'model.glb');
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
