import { Body, Controller, Delete, Get, Header, HttpCode, Param, Patch, Post, Put } from '@nestjs/common';
import { ApiConflictResponse, ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { CreateShotDto, RenameShotDto, SaveShotDto, SavedDto, ShotCardDto, ShotDto } from './shots.dto.js';
import { ShotsService } from './shots.service.js';

@ApiTags('shots')
@Controller('api/shots')
export class ShotsController {
  constructor(private readonly shots: ShotsService) {}

  @Get()
  @ApiOkResponse({ type: [ShotCardDto] })
  list(): Promise<ShotCardDto[]> {
    return this.shots.list();
  }

  @Get('deleted')
  @ApiOkResponse({ type: [ShotCardDto] })
  listDeleted(): Promise<ShotCardDto[]> {
    return this.shots.listDeleted();
  }

  @Post()
  create(@Body() body: CreateShotDto): Promise<ShotDto> {
    return this.shots.create(body.name, body.document);
  }

  @Get(':id')
  @Header('Content-Type', 'application/json; charset=utf-8')
  @ApiOkResponse({ type: ShotDto })
  open(@Param('id') id: string): Promise<string> {
    return this.shots.textOf(id);
  }

  /** Revision only, for pages that ask every few seconds: no document goes with it. */
  @Get(':id/revision')
  @ApiOkResponse({ type: SavedDto })
  revision(@Param('id') id: string): Promise<SavedDto> {
    return this.shots.revisionOf(id);
  }

  @Put(':id')
  @ApiConflictResponse({ description: 'Saved elsewhere since; nothing was changed' })
  @ApiOkResponse({ type: SavedDto })
  save(@Param('id') id: string, @Body() body: SaveShotDto): Promise<SavedDto> {
    return this.shots.save(id, body.revision, body.document, body.save);
  }

  @Patch(':id')
  rename(@Param('id') id: string, @Body() body: RenameShotDto): Promise<SavedDto> {
    return this.shots.rename(id, body.name);
  }

  @Post(':id/duplicate')
  duplicate(@Param('id') id: string): Promise<ShotDto> {
    return this.shots.duplicate(id);
  }

  @Delete(':id')
  @HttpCode(204)
  delete(@Param('id') id: string): Promise<void> {
    return this.shots.delete(id);
  }

  @Post(':id/undelete')
  undelete(@Param('id') id: string): Promise<ShotDto> {
    return this.shots.undelete(id);
  }
}
