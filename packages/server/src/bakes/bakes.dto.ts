import { Type } from 'class-transformer';
import { IsNumber, Max, Min } from 'class-validator';

/** How much keys may be thinned: metres, radians or weight that no value is off by. */
export class ThinningDto {
  @Type(() => Number)
  @IsNumber({ allowNaN: false, allowInfinity: false })
  @Min(0)
  @Max(1)
  within = 0;
}
