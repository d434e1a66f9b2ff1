import { ApiProperty, ApiPropertyOptional } from '@nestjs/swagger';
import { IsInt, IsOptional, IsUUID, Min } from 'class-validator';
import type { CheckedShot } from '../documents/checked-shot.js';
import { IsDocument } from '../documents/is-document.js';
import { IsName } from '../http/is-name.js';

const documentSchema = {
  type: 'object' as const,
  additionalProperties: true,
  description: 'A shot document, version 1; see docs/shot-file.md',
};

export class CreateShotDto {
  @ApiPropertyOptional({ description: 'For an empty shot' })
  @IsOptional()
  @IsName()
  name?: string;

  @ApiPropertyOptional(documentSchema)
  @IsOptional()
  @IsDocument()
  document?: CheckedShot;
}

export class SaveShotDto {
  @ApiProperty({
    description: 'The revision this document was made from; 409 where it is no longer the newest',
  })
  @IsInt()
  @Min(1)
  revision!: number;

  @ApiProperty(documentSchema)
  @IsDocument()
  document!: CheckedShot;

  @ApiPropertyOptional({
    description: 'A name for this save; sent again under it after an answer that was lost, it is known',
  })
  @IsOptional()
  @IsUUID()
  save?: string;
}

/** Result of a save; the document is the one that was sent. */
export class SavedDto {
  @ApiProperty() id!: string;
  @ApiProperty() name!: string;
  @ApiProperty() revision!: number;
  @ApiProperty() updatedAt!: string;
}

export class RenameShotDto {
  @ApiProperty()
  @IsName()
  name!: string;
}

/** Fields of a shot in the list of shots. */
export class ShotCardDto {
  @ApiProperty() id!: string;
  @ApiProperty() name!: string;
  @ApiProperty() revision!: number;
  @ApiProperty() updatedAt!: string;
  @ApiProperty({ nullable: true, type: String, description: 'When a deleted shot goes for good' })
  deleteAfter!: string | null;
  @ApiProperty({ type: 'object', additionalProperties: true }) sketch!: object;
}

/** A shot, whole. */
export class ShotDto {
  @ApiProperty() id!: string;
  @ApiProperty() name!: string;
  @ApiProperty() revision!: number;
  @ApiProperty() updatedAt!: string;
  @ApiProperty(documentSchema) document!: object;
  @ApiProperty({ nullable: true, type: String, description: 'The save that made this revision' })
  save!: string | null;
}
