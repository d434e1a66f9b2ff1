import { rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { Readable } from 'node:stream';
import {
  BadRequestException,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  Post,
  Query,
  Res,
  StreamableFile,
  UploadedFile,
  UseInterceptors,
} from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import { ApiConsumes, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { whenGone } from '../http/when-gone.js';
import type { UploadedOnDisk } from '../http/uploaded.js';
import { BackupService } from './backup.service.js';
import {
  CancelledDto,
  MissingModelDto,
  RestoredDto,
  RestoreNameDto,
  RestoreProgressDto,
} from './library.dto.js';
import { RestoreService } from './restore.service.js';

/** The largest backup that is accepted, bytes. */
const LARGEST = 8 * 2 ** 30;

@ApiTags('library')
@Controller('api/library')
export class LibraryController {
  constructor(
    private readonly backup: BackupService,
    private readonly restore: RestoreService,
  ) {}

  @Get('backup')
  @ApiOkResponse({ description: 'All shots, checkpoints and models', content: { 'application/zip': {} } })
  give(@Res({ passthrough: true }) response: Response): StreamableFile {
    const day = new Date().toISOString().slice(0, 10);
    const parts = this.backup.parts(whenGone(response));
    const file = new StreamableFile(Readable.from(parts, { objectMode: false }), {
      type: 'application/zip',
      disposition: `attachment; filename*=UTF-8''fleet-rail-${day}.zip`,
    });
    // A backup that breaks off must not look like a whole one: its connection breaks off too.
    return file.setErrorHandler((_, raw) => (raw as unknown as Response).destroy());
  }

  /** Models whose files are gone from the data folder. */
  @Get('missing')
  @ApiOkResponse({ type: [MissingModelDto] })
  missing(): Promise<MissingModelDto[]> {
    return this.backup.missing();
  }

  @Post('restore')
  @HttpCode(200)
  @ApiOkResponse({ type: RestoredDto })
  @ApiConsumes('multipart/form-data')
  @UseInterceptors(FileInterceptor('file', { dest: tmpdir(), limits: { fileSize: LARGEST, files: 1 } }))
  async take(
    @UploadedFile() file: UploadedOnDisk | undefined,
    @Query() { name }: RestoreNameDto,
    @Res({ passthrough: true }) response: Response,
  ): Promise<RestoredDto> {
    if (file === undefined) throw new BadRequestException('Expected a backup in the field "file".');
    try {
      return await this.restore.restore(file.path, name ?? file.filename, whenGone(response));
    } finally {
      await rm(file.path, { force: true });
    }
  }

  /** How far a restore is; 0 of 0 before it has begun and after it has ended. */
  @Get('restores/:name')
  @ApiOkResponse({ type: RestoreProgressDto })
  progress(@Param('name') name: string): RestoreProgressDto {
    return this.restore.progressOf(name) ?? { done: 0, of: 0 };
  }

  /** Cancels a restore, also before its backup has come whole. */
  @Delete('restores/:name')
  @ApiOkResponse({ type: CancelledDto })
  cancel(@Param() { name }: RestoreNameDto): CancelledDto {
    if (name === undefined) throw new BadRequestException('Expected the name of a restore.');
    return { cancelled: this.restore.cancel(name) };
  }
}
