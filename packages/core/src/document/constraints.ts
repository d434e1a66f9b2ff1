import { ValidateBy, ValidateIf, ValidateNested } from 'class-validator';
import { noteName, notePart } from './compiled-schema.js';
import type { JsonSchema, RuleMeaning } from './json-schema.js';
import { plainName } from './plain-name.js';
import { LIMITS } from './limits.js';

// The document's own vocabulary of decorators. Each message is the "expected" half of a refusal,
// so that every class below reads as the schema does and every error reads alike.

type PropertyRule = (target: object, key: string) => void;

/**
 * A rule that is kept when `holds` answers true.
 *
 * @param expected text of a refusal
 * @param schema the same rule as JSON Schema, as far as that can express it
 */
export function rule(expected: string, holds: (value: unknown) => boolean, schema: JsonSchema): PropertyRule {
  const context: RuleMeaning = { expected, schema };
  return ValidateBy(
    { name: expected, validator: { validate: holds, defaultMessage: () => expected } },
    { context },
  ) as PropertyRule;
}

const NULL = { type: 'null' };

/** A schema that allows null as well. */
export const orNull = (schema: JsonSchema): JsonSchema => ({ anyOf: [schema, NULL] });

const text = (max: number): JsonSchema => ({ type: 'string', minLength: 1, maxLength: max });

/** A schema of a list with a number of numbers. */
export const numbers = (length: number, most?: number): JsonSchema => ({
  type: 'array',
  items: most === undefined ? { type: 'number' } : { type: 'number', minimum: -most, maximum: most },
  minItems: length,
  maxItems: length,
});

const isText = (v: unknown, max: number): v is string =>
  typeof v === 'string' && v.length > 0 && v.length <= max;

/** Text of 1 to `max` characters. */
export const Text = (max: number = LIMITS.textLength): PropertyRule =>
  rule(`text of 1 to ${max} characters`, (v) => isText(v, max), text(max));

/** A name for people to read, plain when it is read: see {@link plainName}. */
export const Name =
  (max: number = LIMITS.textLength): PropertyRule =>
  (target, key) => {
    rule(
      `text of 1 to ${max} characters`,
      (v) => isText(v, max) && plainName(v) !== '',
      text(max),
    )(target, key);
    noteName(target, key);
  };

/** Text that may be left out as null. */
export const TextOrNull = (): PropertyRule =>
  rule(
    `text of 1 to ${LIMITS.textLength} characters, or null`,
    (v) => v === null || isText(v, LIMITS.textLength),
    orNull(text(LIMITS.textLength)),
  );

/** A short name that other parts of the document point to. */
export const Id = (): PropertyRule =>
  rule(
    'an id of 1 to 64 letters, digits, ".", "_" or "-"',
    (v) => typeof v === 'string' && /^[\w.-]{1,64}$/.test(v),
    { type: 'string', pattern: '^[\\w.-]{1,64}$' },
  );

/** The id of something else of the document, or null. */
export const IdOrNull = (noun: string): PropertyRule =>
  rule(
    `the id of a ${noun}, or null`,
    (v) => v === null || typeof v === 'string',
    orNull({ type: 'string' }),
  );

const isColor = (v: unknown) => typeof v === 'string' && /^#[0-9a-f]{6}$/i.test(v);

const COLOR = { type: 'string', pattern: '^#[0-9a-fA-F]{6}$' };

/** A colour of the screen. */
export const Color = (): PropertyRule => rule('a colour as #rrggbb', isColor, COLOR);

/** A colour that may be left out as null. */
export const ColorOrNull = (): PropertyRule =>
  rule('a colour as #rrggbb, or null', (v) => v === null || isColor(v), orNull(COLOR));

/** True or false. */
export const Flag = (): PropertyRule =>
  rule('true or false', (v) => typeof v === 'boolean', { type: 'boolean' });

/** A finite number in [min, max]. */
export function Amount(unit: string, min = -1e9, max = 1e9): PropertyRule {
  const bounds = min === -1e9 && max === 1e9 ? '' : ` from ${min} to ${max}`;
  return rule(
    `a number${bounds}${unit ? ` (${unit})` : ''}`,
    (v) => typeof v === 'number' && Number.isFinite(v) && v >= min && v <= max,
    { type: 'number', minimum: min, maximum: max },
  );
}

/** A whole number in [min, max]. */
export const Whole = (min: number, max: number): PropertyRule =>
  rule(
    `a whole number from ${min} to ${max}`,
    (v) => Number.isInteger(v) && (v as number) >= min && (v as number) <= max,
    { type: 'integer', minimum: min, maximum: max },
  );

/** One of a few words. */
export const OneOf = (...words: readonly string[]): PropertyRule =>
  rule(`one of ${words.join(', ')}`, (v) => words.includes(v as string), { enum: words });

const isNumbers = (v: unknown, length: number, most: number): v is number[] =>
  Array.isArray(v) &&
  v.length === length &&
  v.every((n) => typeof n === 'number' && Number.isFinite(n) && Math.abs(n) <= most);

/** Three finite numbers in metres. */
export const Point = (): PropertyRule =>
  rule(
    `three numbers [x, y, z] within ±${LIMITS.coordinate} m`,
    (v) => isNumbers(v, 3, LIMITS.coordinate),
    numbers(3, LIMITS.coordinate),
  );

/** Two finite numbers, frames and value; may be left out. */
export const PairOrLeftOut = (): PropertyRule =>
  rule(
    'two numbers [frames, value], or left out',
    (v) => v === undefined || isNumbers(v, 2, 1e9),
    numbers(2, 1e9),
  );

/** Two finite numbers: frames and value. */
export const Pair = (): PropertyRule =>
  rule('two numbers [frames, value]', (v) => isNumbers(v, 2, 1e9), numbers(2, 1e9));

/** A quaternion that is a rotation. */
export const Rotation = (): PropertyRule =>
  rule(
    'a unit quaternion [x, y, z, w]',
    (v) => {
      if (!isNumbers(v, 4, 2)) return false;
      return Math.abs(Math.hypot(...v) - 1) < 1e-3;
    },
    numbers(4, 2),
  );

/** A scale by axis, none of them zero. */
export const Scale = (): PropertyRule =>
  rule(
    'three numbers [x, y, z], none of them 0',
    (v) => isNumbers(v, 3, 1e6) && v.every((n) => n !== 0),
    numbers(3, 1e6),
  );

/** Numbers that never fall, or null. */
export const KnotsOrNull = (): PropertyRule =>
  rule(
    'numbers in rising order, or null',
    (v) => {
      if (v === null) return true;
      if (!Array.isArray(v) || v.length > LIMITS.pointsPerPath + 12) return false;
      return v.every((n, i) => Number.isFinite(n) && (i === 0 || n >= v[i - 1]));
    },
    orNull({ type: 'array', items: { type: 'number' }, maxItems: LIMITS.pointsPerPath + 12 }),
  );

/** A list of texts. */
export const Texts = (max: number): PropertyRule =>
  rule(
    `a list of at most ${max} texts`,
    (v) => Array.isArray(v) && v.length <= max && v.every((t) => isText(t, LIMITS.textLength)),
    { type: 'array', items: text(LIMITS.textLength), maxItems: max },
  );

type Class = abstract new (...args: never[]) => object;

function all(...rules: PropertyRule[]): PropertyRule {
  return (target, key) => rules.forEach((apply) => apply(target, key));
}

const nested =
  (of: () => Class, each: boolean): PropertyRule =>
  (target, key) =>
    notePart(target, key, of as () => new () => object, each);
const isObject = (v: unknown) => typeof v === 'object' && v !== null && !Array.isArray(v);
const notNull = ValidateIf((_, value) => value !== null) as PropertyRule;

/** An object of a class. */
export const Nested = (of: () => Class): PropertyRule =>
  all(nested(of, false), rule('an object', isObject, { type: 'object' }), ValidateNested() as PropertyRule);

/** An object of a class, or null. */
export const NestedOrNull = (of: () => Class): PropertyRule =>
  all(
    nested(of, false),
    notNull,
    rule('an object or null', isObject, { type: 'object' }),
    ValidateNested() as PropertyRule,
  );

/** A list of objects of a class. */
export const NestedList = (of: () => Class, max: number): PropertyRule =>
  all(
    nested(of, true),
    rule(`a list of at most ${max} objects`, (v) => Array.isArray(v) && v.every(isObject), {
      type: 'array',
      maxItems: max,
    }),
    ValidateNested({ each: true }) as PropertyRule,
  );
