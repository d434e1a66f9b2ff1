import { Controller, Delete, Param } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { EmptiedDto } from './bin.dto.js';
import { BinService } from './bin.service.js';

/** Deleted shots, deleted for good. */
@ApiTags('bin')
@Controller('api/bin')
export class BinController {
  constructor(private readonly bin: BinService) {}

  @Delete()
  @ApiOkResponse({ type: EmptiedDto })
  emptyAll(): Promise<EmptiedDto> {
    return this.bin.emptyAll();
  }

  @Delete(':id')
  @ApiOkResponse({ type: EmptiedDto })
  emptyOne(@Param('id') id: string): Promise<EmptiedDto> {
    return this.bin.emptyOne(id);
  }
}
