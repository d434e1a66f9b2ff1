import { Readable } from 'node:stream';
import { Controller, Get, Param, ParseEnumPipe, Query, Res, StreamableFile } from '@nestjs/common';
import { ApiOkResponse, ApiQuery, ApiTags } from '@nestjs/swagger';
import { PATH_KINDS, type PathKind } from '@fleet-rail/core/format-facts';
import type { Response } from 'express';
import { whenGone } from '../http/when-gone.js';
import { GivenOutDto } from './bakes.dto.js';
import { BakesService, type Download, type GivenFormat } from './bakes.service.js';

const KINDS = Object.fromEntries(PATH_KINDS.map((kind) => [kind, kind]));

@ApiTags('bakes')
@Controller('api/shots/:shotId/files')
export class BakesController {
  constructor(private readonly bakes: BakesService) {}

  @Get('glb')
  @ApiOkResponse({
    description: 'The models with the ride as an animation',
    content: { 'model/gltf-binary': {} },
  })
  glb(@Param('shotId') id: string, @Query() given: GivenOutDto, @Res({ passthrough: true }) to: Response) {
    return this.give(id, 'glb', given, to);
  }

  @Get('about')
  @ApiOkResponse({ description: 'What a GLB would be: its size, its keys, how far they are off' })
  about(@Param('shotId') id: string, @Query() given: GivenOutDto, @Res({ passthrough: true }) to: Response) {
    return this.give(id, 'about', given, to);
  }

  @Get('usd')
  @ApiOkResponse({
    description: 'The same as USD ASCII; with pictures beside it, both in a zip',
    content: { 'text/plain': {}, 'application/zip': {} },
  })
  usd(@Param('shotId') id: string, @Query() given: GivenOutDto, @Res({ passthrough: true }) to: Response) {
    return this.give(id, 'usd', given, to);
  }

  @Get('usdz')
  @ApiOkResponse({ description: 'The same as one package', content: { 'model/vnd.usdz+zip': {} } })
  usdz(@Param('shotId') id: string, @Query() given: GivenOutDto, @Res({ passthrough: true }) to: Response) {
    return this.give(id, 'usdz', given, to);
  }

  @Get('csv')
  @ApiOkResponse({ description: 'One row a frame and rider', content: { 'text/csv': {} } })
  csv(@Param('shotId') id: string, @Query() given: GivenOutDto, @Res({ passthrough: true }) to: Response) {
    return this.give(id, 'csv', given, to);
  }

  @Get('tables')
  @ApiOkResponse({
    description: 'The CSV with tables of sizes, shapes, cameras, cuts and phases beside it',
    content: { 'application/zip': {} },
  })
  tables(@Param('shotId') id: string, @Query() given: GivenOutDto, @Res({ passthrough: true }) to: Response) {
    return this.give(id, 'tables', given, to);
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

  @Get('path/:pathId')
  @ApiOkResponse({ description: 'A path alone, as SVG, OBJ lines, CSV or glTF lines' })
  @ApiQuery({ name: 'kind', enum: PATH_KINDS })
  async path(
    @Param('shotId') shotId: string,
    @Param('pathId') pathId: string,
    @Query('kind', new ParseEnumPipe(KINDS)) kind: PathKind,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StreamableFile> {
    const given = await this.bakes.path(shotId, pathId, kind, whenGone(response));
    return download(given, typeOf(given.name));
  }

  @Get('shot')
  @ApiOkResponse({ description: 'The shot document', content: { 'application/json': {} } })
  async shot(@Param('shotId') shotId: string): Promise<StreamableFile> {
    return download(await this.bakes.shotFile(shotId), 'application/json; charset=utf-8');
  }

  private async give(
    shotId: string,
    format: GivenFormat,
    given: GivenOutDto,
    response: Response,
  ): Promise<StreamableFile> {
    const baked = await this.bakes.bake(shotId, format, given, whenGone(response));
    return download(baked, typeOf(baked.name));
  }
}

/** By the ending of a file what it is. */
function typeOf(name: string): string {
  const types: Record<string, string> = {
    glb: 'model/gltf-binary',
    csv: 'text/csv; charset=utf-8',
    usda: 'text/plain; charset=utf-8',
    usdz: 'model/vnd.usdz+zip',
    zip: 'application/zip',
    json: 'application/json; charset=utf-8',
    svg: 'image/svg+xml',
    obj: 'model/obj',
  };
  return types[name.replace(/^.*\./, '')];
}

function download({ name, parts }: Download, type: string): StreamableFile {
  const disposition = `attachment; filename*=UTF-8''${encodeURIComponent(name)}`;
  const file = new StreamableFile(Readable.from(parts, { objectMode: false }), { type, disposition });
  // A file that breaks off must not look like a whole one: its connection breaks off too.
  return file.setErrorHandler((_, response) => (response as unknown as Response).destroy());
}
