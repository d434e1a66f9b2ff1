import { Controller, Get, Param, Query, StreamableFile } from '@nestjs/common';
import { ApiOkResponse, ApiQuery, ApiTags } from '@nestjs/swagger';
import { ThinningDto } from './bakes.dto.js';
import { BakesService } from './bakes.service.js';

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
  async glb(@Param('shotId') shotId: string, @Query() { within }: ThinningDto): Promise<StreamableFile> {
    return download(await this.bakes.bake(shotId, 'glb', within), 'model/gltf-binary');
  }

  @Get('csv')
  @ApiOkResponse({ description: 'One row a frame and rider', content: { 'text/csv': {} } })
  async csv(@Param('shotId') shotId: string): Promise<StreamableFile> {
    return download(await this.bakes.bake(shotId, 'csv'), 'text/csv; charset=utf-8');
  }

  @Get('shot')
  @ApiOkResponse({ description: 'The shot document', content: { 'application/json': {} } })
  async shot(@Param('shotId') shotId: string): Promise<StreamableFile> {
    return download(await this.bakes.shotFile(shotId), 'application/json; charset=utf-8');
  }
}

function download({ name, bytes }: { name: string; bytes: Uint8Array }, type: string): StreamableFile {
  const disposition = `attachment; filename*=UTF-8''${encodeURIComponent(name)}`;
  return new StreamableFile(bytes, { type, disposition, length: bytes.byteLength });
}
