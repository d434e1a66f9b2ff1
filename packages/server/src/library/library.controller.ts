import { readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { Readable } from 'node:stream';
import {
  BadRequestException,
  Controller,
  Get,
  HttpCode,
  Post,
  StreamableFile,
  UploadedFile,
  UseInterceptors,
} from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import { ApiConsumes, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { BackupService } from './backup.service.js';
import { RestoredDto } from './library.dto.js';
import { RestoreService } from './restore.service.js';

/** The largest backup that is taken in: all of it is unpacked at once. */
const LARGEST = 1024 * 1024 * 1024;

@ApiTags('library')
@Controller('api/library')
export class LibraryController {
  constructor(
    private readonly backup: BackupService,
    private readonly restore: RestoreService,
  ) {}

  @Get('backup')
  @ApiOkResponse({ description: 'All shots, checkpoints and models', content: { 'application/zip': {} } })
  give(): StreamableFile {
    const day = new Date().toISOString().slice(0, 10);
    return new StreamableFile(Readable.from(this.backup.parts(), { objectMode: false }), {
      type: 'application/zip',
      disposition: `attachment; filename*=UTF-8''fleet-rail-${day}.zip`,
    });
  }

  @Post('restore')
  @HttpCode(200)
  @ApiOkResponse({ type: RestoredDto })
  @ApiConsumes('multipart/form-data')
  @UseInterceptors(FileInterceptor('file', { dest: tmpdir(), limits: { fileSize: LARGEST, files: 1 } }))
  async take(@UploadedFile() file: Express.Multer.File | undefined): Promise<RestoredDto> {
    if (file === undefined) throw new BadRequestException('Expected a backup in the field "file".');
    try {
      return await this.restore.restore(await readFile(file.path));
    } finally {
      await rm(file.path, { force: true });
    }
  }
}
