import { ApiProperty, ApiPropertyOptional } from '@nestjs/swagger';
import { IsOptional, IsUUID } from 'class-validator';

/** Contents restored from a backup. */
export class RestoredDto {
  @ApiProperty() shots!: number;
  @ApiProperty() checkpoints!: number;
  @ApiProperty() models!: number;
  @ApiProperty({ description: 'How much of it was there already' }) there!: number;
  @ApiProperty({ type: [String], description: 'What could not be taken, each with the reason' })
  refused!: string[];
}

/** The name under which clients ask for the progress of a restore. */
export class RestoreNameDto {
  @ApiPropertyOptional() @IsOptional() @IsUUID() name?: string;
}

/** How far a restore is. */
export class RestoreProgressDto {
  @ApiProperty() done!: number;
  @ApiProperty() of!: number;
}

/** Whether a restore was cancelled in time. */
export class CancelledDto {
  @ApiProperty({ description: 'False where it is written already' }) cancelled!: boolean;
}

/** A model whose file is gone from the data folder. */
export class MissingModelDto {
  @ApiProperty() id!: string;
  @ApiProperty() fileName!: string;
  @ApiProperty({ type: [String], description: 'Names of shots that use it, the first few' })
  usedBy!: string[];
}
