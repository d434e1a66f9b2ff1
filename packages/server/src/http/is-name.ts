import { applyDecorators } from '@nestjs/common';
import { plainName } from '@fleet-rail/core/shots';
import { Transform } from 'class-transformer';
import { IsString, Length, ValidateBy } from 'class-validator';

/** A name for a person to read: something that is seen, and whole characters; what is not seen is stripped. */
export const IsName = (most = 200): PropertyDecorator =>
  applyDecorators(
    Transform(({ value }: { value: unknown }) => (isName(value) ? plainName(value) : value)),
    IsString(),
    Length(1, most),
    ValidateBy({
      name: 'isName',
      validator: {
        validate: isName,
        defaultMessage: (args) => `${args?.property} has to hold something that can be read`,
      },
    }),
  );

function isName(value: unknown): value is string {
  if (typeof value !== 'string' || plainName(value).trim() === '' || value.includes('\0')) return false;
  // A half of a pair of surrogates is no character, and no file or database takes it.
  return !/[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/.test(value);
}
