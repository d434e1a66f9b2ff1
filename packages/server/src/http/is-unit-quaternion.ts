import { ValidateBy } from 'class-validator';

const UNIT_WITHIN = 1e-3;

/** Whether a value is a quaternion [x, y, z, w] of length 1, within a thousandth. */
export const isUnitQuaternion = (value: unknown): value is [number, number, number, number] =>
  Array.isArray(value) &&
  value.length === 4 &&
  value.every((one) => typeof one === 'number') &&
  Math.abs(Math.hypot(...(value as number[])) - 1) <= UNIT_WITHIN;

/** A property that is a rotation. */
export const IsUnitQuaternion = (): PropertyDecorator =>
  ValidateBy({
    name: 'isUnitQuaternion',
    validator: {
      validate: isUnitQuaternion,
      defaultMessage: (args) => `${args?.property}: expected a unit quaternion [x, y, z, w]`,
    },
  });
