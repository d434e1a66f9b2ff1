import { Body, Controller, Get, Param, Post } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import type { ShotDto } from '../shots/shots.dto.js';
import { CheckpointDto, RestoreDto, VersionDto } from './versions.dto.js';
import { VersionsService } from './versions.service.js';

@ApiTags('versions')
@Controller('api/shots/:shotId/versions')
export class VersionsController {
  constructor(private readonly versions: VersionsService) {}

  @Get()
  @ApiOkResponse({ type: [VersionDto] })
  list(@Param('shotId') shotId: string): Promise<VersionDto[]> {
    return this.versions.list(shotId);
  }

  @Post()
  checkpoint(@Param('shotId') shotId: string, @Body() body: CheckpointDto): Promise<VersionDto> {
    return this.versions.checkpoint(shotId, body.name);
  }

  @Post(':id/restore')
  restore(
    @Param('shotId') shotId: string,
    @Param('id') id: string,
    @Body() body: RestoreDto,
  ): Promise<ShotDto> {
    return this.versions.restore(shotId, id, body.revision);
  }
}
