import { applyDecorators } from '@nestjs/common';
import { IsObject } from 'class-validator';
import { HeldApart } from '../http/held-apart.js';
import { CheckedShot } from './checked-shot.js';

/** A property that holds a shot document; it arrives as a {@link CheckedShot}. */
export const IsDocument = (): PropertyDecorator =>
  applyDecorators(
    IsObject(),
    HeldApart({
      fits: (value) => typeof value === 'object' && value !== null && !Array.isArray(value),
      read: (value) => CheckedShot.of(value),
    }),
  );
