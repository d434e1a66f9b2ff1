import { Transform, Type } from 'class-transformer';
import { ApiProperty } from '@nestjs/swagger';
import { IsBoolean, IsIn, IsInt, IsNumber, IsOptional, IsString, Max, MaxLength, Min } from 'class-validator';

const yes = ({ value }: { value: unknown }): unknown =>
  value === '1' ? true : value === '0' ? false : value;

/** Choice of what a bake contains; a field left out means all. */
export class GivenOutDto {
  @ApiProperty({
    required: false,
    description: 'Leave keys out where no place in the world is off by more; metres',
  })
  @Type(() => Number)
  @IsNumber({ allowNaN: false, allowInfinity: false })
  @Min(0)
  @Max(1)
  within = 0;

  @ApiProperty({ required: false, description: 'And nothing is turned by more; degrees' })
  @IsOptional()
  @Type(() => Number)
  @IsNumber({ allowNaN: false, allowInfinity: false })
  @Min(0)
  @Max(180)
  turns?: number;

  @ApiProperty({ required: false, description: '1 for one key more, equal to the first' })
  @Transform(yes)
  @IsBoolean()
  closing = false;

  @ApiProperty({ required: false, enum: ['keep', 'drop'], description: "The models' own clips" })
  @IsIn(['keep', 'drop'])
  clips: 'keep' | 'drop' = 'keep';

  @ApiProperty({ required: false, description: '1 for lines with rate and units before a CSV' })
  @Transform(yes)
  @IsBoolean()
  facts = false;

  @ApiProperty({ required: false, description: 'Ids of riders, with commas between' })
  @IsOptional()
  @IsString()
  @MaxLength(20_000)
  riders?: string;

  @ApiProperty({ required: false, description: 'First frame' })
  @IsOptional()
  @Type(() => Number)
  @IsInt()
  from?: number;

  @ApiProperty({ required: false, description: 'Last frame' })
  @IsOptional()
  @Type(() => Number)
  @IsInt()
  to?: number;
}
