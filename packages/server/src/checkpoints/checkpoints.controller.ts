import { Body, Controller, Get, Param, Post } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import type { ShotDto } from '../shots/shots.dto.js';
import { CheckpointDto, NewCheckpointDto, RestoreDto } from './checkpoints.dto.js';
import { CheckpointsService } from './checkpoints.service.js';

@ApiTags('checkpoints')
@Controller('api/shots/:shotId/checkpoints')
export class CheckpointsController {
  constructor(private readonly checkpoints: CheckpointsService) {}

  @Get()
  @ApiOkResponse({ type: [CheckpointDto] })
  list(@Param('shotId') shotId: string): Promise<CheckpointDto[]> {
    return this.checkpoints.list(shotId);
  }

  @Post()
  add(@Param('shotId') shotId: string, @Body() body: NewCheckpointDto): Promise<CheckpointDto> {
    return this.checkpoints.add(shotId, body.name);
  }

  @Post(':id/restore')
  restore(
    @Param('shotId') shotId: string,
    @Param('id') id: string,
    @Body() body: RestoreDto,
  ): Promise<ShotDto> {
    return this.checkpoints.restore(shotId, id, body.revision);
  }
}
