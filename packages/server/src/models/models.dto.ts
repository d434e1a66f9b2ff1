import { ApiProperty } from '@nestjs/swagger';

/** A model that riders can wear. */
export class ModelDto {
  @ApiProperty() id!: string;
  @ApiProperty() name!: string;
  @ApiProperty() fileName!: string;
  @ApiProperty() bytes!: number;
  @ApiProperty() shipped!: boolean;
  @ApiProperty({ type: 'object', additionalProperties: true }) facts!: object;
}
