import { ApiProperty, ApiPropertyOptional } from '@nestjs/swagger';
import { Type } from 'class-transformer';
import {
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  IsUUID,
  Length,
  Max,
  Min,
  ValidateNested,
} from 'class-validator';
import { PICTURE_FILES, type PictureFile } from '@fleet-rail/core/shots';
import type { CheckedShot } from '../documents/checked-shot.js';
import { IsDocument } from '../documents/is-document.js';
import { IsName } from '../http/is-name.js';
import type { CheckedPlan } from './checked-plan.js';
import { IsPlan } from './is-plan.js';

class BurnInDto {
  @IsBoolean() frame = false;
  @IsBoolean() timecode = false;
  @IsBoolean() name = false;
  @IsBoolean() board = false;
  @IsBoolean() safe = false;
}

class WishDto {
  @IsIn(['one', 'range', 'cuts']) frames!: 'one' | 'range' | 'cuts';
  @IsInt() @Min(1) every = 1;
  /** Order for pictures; its result is in the pictures. */
  @IsOptional() eye: unknown = 'view';
  @IsInt() @Min(16) @Max(8192) width!: number;
  @IsInt() @Min(16) @Max(8192) height!: number;
  @IsInt() @Min(1) @Max(4) times = 1;
  @IsIn(PICTURE_FILES) file!: PictureFile;
  @IsNumber() @Min(0) @Max(1) quality = 0.7;
  @IsInt() @Min(1) @Max(100) rounds = 1;
  @ValidateNested() @Type(() => BurnInDto) burnIn: BurnInDto = new BurnInDto();
  @IsBoolean() helpers = false;
  @IsBoolean() clear = false;
}

/** Order for pictures. */
export class NewJobDto {
  @ApiPropertyOptional({ description: 'The shot they are wished for at' })
  @IsOptional()
  @IsUUID()
  shotId?: string;

  @ApiProperty() @IsName() fileName!: string;

  @ApiProperty({ type: 'object', additionalProperties: true, description: 'A shot document' })
  @IsDocument()
  shot!: CheckedShot;

  @ApiProperty({ type: WishDto }) @ValidateNested() @Type(() => WishDto) wish!: WishDto;

  @ApiProperty({
    type: [Object],
    description: 'A frame and the eyes that see it, each a rider or a free place with a unit quaternion',
  })
  @IsPlan()
  pictures!: CheckedPlan;

  @ApiProperty({ enum: ['day', 'night'] }) @IsIn(['day', 'night']) theme: 'day' | 'night' = 'day';
  @ApiPropertyOptional({ nullable: true, type: String }) @IsOptional() @IsString() board: string | null =
    null;
}

/** Renderer that asks for work, and the jobs it wants. */
export class ClaimDto {
  @ApiProperty() @IsUUID() id!: string;
  @ApiProperty() @IsName(60) name!: string;
  @ApiProperty() @IsIn(['desk', 'window', 'server']) kind!: 'desk' | 'window' | 'server';
  @ApiPropertyOptional() @IsOptional() @IsUUID() shot?: string;
  @ApiPropertyOptional() @IsOptional() @IsUUID() job?: string;
}

/** Renderer of the batch. */
export class RendererDto {
  @ApiProperty() @IsUUID() renderer!: string;
}

export class BeatDto extends RendererDto {
  @ApiProperty() @IsInt() @Min(0) done!: number;
}

export class FailDto extends RendererDto {
  @ApiProperty() @IsString() @Length(1, 2000) problem!: string;
  @ApiProperty({ description: 'No other renderer would come further' }) @IsBoolean() final!: boolean;
}
