import { ApiProperty } from '@nestjs/swagger';

/** What a backup brought. */
export class RestoredDto {
  @ApiProperty() shots!: number;
  @ApiProperty() checkpoints!: number;
  @ApiProperty() models!: number;
  @ApiProperty({ description: 'How much of it was there already' }) there!: number;
  @ApiProperty({ type: [String], description: 'What could not be taken, each with the reason' })
  refused!: string[];
}
