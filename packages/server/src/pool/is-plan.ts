import { BadRequestException, applyDecorators } from '@nestjs/common';
import { MOST_EYES, type PlannedPicture } from '@fleet-rail/core/shots';
import { IsArray } from 'class-validator';
import { HeldApart } from '../http/held-apart.js';
import { isUnitQuaternion } from '../http/is-unit-quaternion.js';
import { CheckedPlan } from './checked-plan.js';

const MOST_PICTURES = 100_000;
const LARGEST = 1e9;

/** A property that plans pictures: a frame each, and the eyes that see it. It arrives as a {@link CheckedPlan}. */
export const IsPlan = (): PropertyDecorator =>
  applyDecorators(
    IsArray(),
    HeldApart({
      fits: Array.isArray,
      read(value) {
        const problem = problemOfPlan(value as unknown[]);
        if (problem !== null) throw new BadRequestException([`pictures${problem}`]);
        return CheckedPlan.from(value as PlannedPicture[]);
      },
    }),
  );

/** Says where a plan is not one, what was found and what was expected; null where it is one. */
export function problemOfPlan(pictures: readonly unknown[]): string | null {
  if (pictures.length < 1 || pictures.length > MOST_PICTURES)
    return `: found ${pictures.length} pictures; expected 1 to ${MOST_PICTURES}`;
  for (const [i, picture] of pictures.entries()) {
    const { frame, eyes, ...rest } = objectOf(picture);
    if (!Number.isSafeInteger(frame)) return `[${i}].frame: found ${shown(frame)}; expected a whole number`;
    if (!Array.isArray(eyes) || eyes.length < 1 || eyes.length > MOST_EYES)
      return `[${i}].eyes: expected 1 to ${MOST_EYES} eyes`;
    if (Object.keys(rest).length > 0)
      return `[${i}]: found "${Object.keys(rest)[0]}"; expected frame and eyes`;
    for (const [k, eye] of eyes.entries()) {
      const problem = problemOfEye(eye);
      if (problem !== null) return `[${i}].eyes[${k}]${problem}`;
    }
  }
  return null;
}

function problemOfEye(eye: unknown): string | null {
  const { rider, free, ...rest } = objectOf(eye);
  const isRider = typeof rider === 'string' && rider.length >= 1 && rider.length <= 200;
  if (Object.keys(rest).length > 0 || isRider === (free !== undefined))
    return ': expected either the id of a rider or a free place';
  if (isRider) return null;
  const { position, rotation, fieldOfView, height, ...more } = objectOf(free);
  if (Object.keys(more).length > 0)
    return `.free: found "${Object.keys(more)[0]}"; expected position, rotation, fieldOfView and height`;
  if (!isNumbers(position, 3)) return '.free.position: expected three numbers';
  if (!isUnitQuaternion(rotation)) return '.free.rotation: expected a unit quaternion [x, y, z, w]';
  if (!isNullOr(fieldOfView, 1e-4, 3.14))
    return '.free.fieldOfView: expected radians from 0.0001 to 3.14, or null';
  if (!isNullOr(height, 1e-6, LARGEST)) return '.free.height: expected metres above 0, or null';
  if ((fieldOfView === null) === (height === null))
    return '.free: expected either a fieldOfView or a height, and null for the other';
  return null;
}

const objectOf = (value: unknown): Record<string, unknown> =>
  typeof value === 'object' && value !== null && !Array.isArray(value) ? { ...value } : {};

const isNumbers = (value: unknown, count: number): value is number[] =>
  Array.isArray(value) &&
  value.length === count &&
  value.every((one) => Number.isFinite(one) && Math.abs(one as number) <= LARGEST);

const isNullOr = (value: unknown, least: number, most: number): boolean =>
  value === null || (typeof value === 'number' && value >= least && value <= most);

const shown = (value: unknown): string => String(JSON.stringify(value)).slice(0, 60);
