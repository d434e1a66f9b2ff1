import { ApiProperty } from '@nestjs/swagger';
import { IsInt, Min } from 'class-validator';
import { IsName } from '../http/is-name.js';

export class NewCheckpointDto {
  @ApiProperty()
  @IsName()
  name!: string;
}

export class RestoreDto {
  @ApiProperty({ description: "The shot's revision as last seen; 409 where it is no longer the newest" })
  @IsInt()
  @Min(1)
  revision!: number;
}

export class CheckpointDto {
  @ApiProperty() id!: string;
  @ApiProperty() name!: string;
  @ApiProperty() revision!: number;
  @ApiProperty() createdAt!: string;
}
