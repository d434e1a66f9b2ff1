import { Readable } from 'node:stream';
import { Controller, Get, Param, Query, Res, StreamableFile } from '@nestjs/common';
import { ApiOkResponse, ApiQuery, ApiTags } from '@nestjs/swagger';
import type { Response } from 'express';
import { ThinningDto } from './bakes.dto.js';
import { BakesService, type Download } from './bakes.service.js';

@ApiTags('bakes')
@Controller('api/shots/:shotId/files')
export class BakesController {
  constructor(private readonly bakes: BakesService) {}

  @Get('glb')
  @ApiOkResponse({
    description: 'The models with the ride as an animation',
    content: { 'model/gltf-binary': {} },
  })
  @ApiQuery({ name: 'within', required: false, description: 'Leave keys out where no value is off by more' })
  async glb(
    @Param('shotId') shotId: string,
    @Query() { within }: ThinningDto,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StreamableFile> {
    const baked = await this.bakes.bake(shotId, 'glb', within, whenGone(response));
    return download(baked, 'model/gltf-binary');
  }

  @Get('csv')
  @ApiOkResponse({ description: 'One row a frame and rider', content: { 'text/csv': {} } })
  async csv(
    @Param('shotId') shotId: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StreamableFile> {
    const baked = await this.bakes.bake(shotId, 'csv', 0, whenGone(response));
    return download(baked, 'text/csv; charset=utf-8');
  }

  @Get('laid/:laidId')
  @ApiOkResponse({ description: 'What is laid along a path, alone', content: { 'model/gltf-binary': {} } })
  async laid(
    @Param('shotId') shotId: string,
    @Param('laidId') laidId: string,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StreamableFile> {
    return download(await this.bakes.laid(shotId, laidId, whenGone(response)), 'model/gltf-binary');
  }

  @Get('shot')
  @ApiOkResponse({ description: 'The shot document', content: { 'application/json': {} } })
  async shot(@Param('shotId') shotId: string): Promise<StreamableFile> {
    return download(await this.bakes.shotFile(shotId), 'application/json; charset=utf-8');
  }
}

/** Aborted when the one who asked goes away before all is sent. */
function whenGone(response: Response): AbortSignal {
  const gone = new AbortController();
  response.once('close', () => gone.abort());
  return gone.signal;
}

function download({ name, parts }: Download, type: string): StreamableFile {
  const disposition = `attachment; filename*=UTF-8''${encodeURIComponent(name)}`;
  const file = new StreamableFile(Readable.from(parts, { objectMode: false }), { type, disposition });
  // A file that breaks off must not look like a whole one: its connection breaks off too.
  return file.setErrorHandler((_, response) => (response as unknown as Response).destroy());
}
