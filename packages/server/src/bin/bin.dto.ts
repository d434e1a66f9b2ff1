import { ApiProperty } from '@nestjs/swagger';

/** Counts of everything that was deleted for good. */
export class EmptiedDto {
  @ApiProperty() shots!: number;
  @ApiProperty() checkpoints!: number;
  @ApiProperty({ description: 'Models that only those shots used' }) models!: number;
  @ApiProperty({ description: 'By so much the data folder became smaller' }) bytes!: number;
}
