import { ApiProperty } from '@nestjs/swagger';
import { IsUnitQuaternion } from '../http/is-unit-quaternion.js';
import { ArrayMaxSize, ArrayMinSize, IsArray, IsNumber, Max, Min } from 'class-validator';

const FINITE = { allowNaN: false, allowInfinity: false };

/** How a model is to be placed. */
export class PlacingDto {
  @ApiProperty({ description: 'Metres that a unit of it is' })
  @IsNumber(FINITE)
  @Min(1e-6)
  @Max(1e6)
  scale!: number;

  @ApiProperty({ type: [Number], description: 'x, y and z, metres' })
  @IsArray()
  @ArrayMinSize(3)
  @ArrayMaxSize(3)
  @IsNumber(FINITE, { each: true })
  @Min(-1e6, { each: true })
  @Max(1e6, { each: true })
  translation!: [number, number, number];

  @ApiProperty({ type: [Number], description: 'A unit quaternion: x, y, z, w' })
  @IsUnitQuaternion()
  rotation!: [number, number, number, number];
}

/** A model for riders. */
export class ModelDto {
  @ApiProperty() id!: string;
  @ApiProperty() name!: string;
  @ApiProperty() fileName!: string;
  @ApiProperty() bytes!: number;
  @ApiProperty() shipped!: boolean;
  @ApiProperty({ type: 'object', additionalProperties: true }) facts!: object;
}
