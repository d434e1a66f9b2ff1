import { ApiProperty } from '@nestjs/swagger';
import { IsInt, IsString, Length, Min } from 'class-validator';

export class NewCheckpointDto {
  @ApiProperty()
  @IsString()
  @Length(1, 200)
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
