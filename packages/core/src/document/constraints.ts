import { ValidateBy, ValidateIf, ValidateNested } from 'class-validator';
import { noteName, notePart } from './compiled-schema.js';
import { plainName } from './plain-name.js';
import { LIMITS } from './limits.js';

// The document's own vocabulary of decorators. Each message is the "expected" half of a refusal,
// so that every class below reads as the schema does and every error reads alike.

type PropertyRule = (target: object, key: string) => void;

/** A rule that is kept when `holds` answers true; `expected` is what a refusal says. */
export function rule(expected: string, holds: (value: unknown) => boolean): PropertyRule {
  return ValidateBy({
    name: expected,
    validator: { validate: holds, defaultMessage: () => expected },
  }) as PropertyRule;
}

const isText = (v: unknown, max: number): v is string =>
  typeof v === 'string' && v.length > 0 && v.length <= max;

/** Text of 1 to `max` characters. */
export const Text = (max: number = LIMITS.textLength): PropertyRule =>
  rule(`text of 1 to ${max} characters`, (v) => isText(v, max));

/** A name for people to read, plain when it is read: see {@link plainName}. */
export const Name =
  (max: number = LIMITS.textLength): PropertyRule =>
  (target, key) => {
    rule(`text of 1 to ${max} characters`, (v) => isText(v, max) && plainName(v) !== '')(target, key);
    noteName(target, key);
  };

/** Text that may be left out as null. */
export const TextOrNull = (): PropertyRule =>
  rule(
    `text of 1 to ${LIMITS.textLength} characters, or null`,
    (v) => v === null || isText(v, LIMITS.textLength),
  );

/** A short name that other parts of the document point to. */
export const Id = (): PropertyRule =>
  rule(
    'an id of 1 to 64 letters, digits, ".", "_" or "-"',
    (v) => typeof v === 'string' && /^[\w.-]{1,64}$/.test(v),
  );

/** The id of something else of the document, or null. */
export const IdOrNull = (noun: string): PropertyRule =>
  rule(`the id of a ${noun}, or null`, (v) => v === null || typeof v === 'string');

const isColor = (v: unknown) => typeof v === 'string' && /^#[0-9a-f]{6}$/i.test(v);

/** A colour of the screen. */
export const Color = (): PropertyRule => rule('a colour as #rrggbb', isColor);

/** A colour that may be left out as null. */
export const ColorOrNull = (): PropertyRule =>
  rule('a colour as #rrggbb, or null', (v) => v === null || isColor(v));

/** True or false. */
export const Flag = (): PropertyRule => rule('true or false', (v) => typeof v === 'boolean');

/** A finite number in [min, max]. */
export function Amount(unit: string, min = -1e9, max = 1e9): PropertyRule {
  const bounds = min === -1e9 && max === 1e9 ? '' : ` from ${min} to ${max}`;
  return rule(
    `a number${bounds}${unit ? ` (${unit})` : ''}`,
    (v) => typeof v === 'number' && Number.isFinite(v) && v >= min && v <= max,
  );
}

/** A whole number in [min, max]. */
export const Whole = (min: number, max: number): PropertyRule =>
  rule(
    `a whole number from ${min} to ${max}`,
    (v) => Number.isInteger(v) && (v as number) >= min && (v as number) <= max,
  );

/** One of a few words. */
export const OneOf = (...words: readonly string[]): PropertyRule =>
  rule(`one of ${words.join(', ')}`, (v) => words.includes(v as string));

const isNumbers = (v: unknown, length: number, most: number): v is number[] =>
  Array.isArray(v) &&
  v.length === length &&
  v.every((n) => typeof n === 'number' && Number.isFinite(n) && Math.abs(n) <= most);

/** Three finite numbers in metres. */
export const Point = (): PropertyRule =>
  rule(`three numbers [x, y, z] within ±${LIMITS.coordinate} m`, (v) => isNumbers(v, 3, LIMITS.coordinate));

/** Two finite numbers: frames and value. */
/** The same, or nothing. */
export const PairOrLeftOut = (): PropertyRule =>
  rule('two numbers [frames, value], or left out', (v) => v === undefined || isNumbers(v, 2, 1e9));
export const Pair = (): PropertyRule => rule('two numbers [frames, value]', (v) => isNumbers(v, 2, 1e9));

/** A quaternion that is a rotation. */
export const Rotation = (): PropertyRule =>
  rule('a unit quaternion [x, y, z, w]', (v) => {
    if (!isNumbers(v, 4, 2)) return false;
    return Math.abs(Math.hypot(...v) - 1) < 1e-3;
  });

/** A scale by axis, none of them zero. */
export const Scale = (): PropertyRule =>
  rule('three numbers [x, y, z], none of them 0', (v) => isNumbers(v, 3, 1e6) && v.every((n) => n !== 0));

/** Numbers that never fall, or null. */
export const KnotsOrNull = (): PropertyRule =>
  rule('numbers in rising order, or null', (v) => {
    if (v === null) return true;
    if (!Array.isArray(v) || v.length > LIMITS.pointsPerPath + 12) return false;
    return v.every((n, i) => Number.isFinite(n) && (i === 0 || n >= v[i - 1]));
  });

/** A list of texts. */
export const Texts = (max: number): PropertyRule =>
  rule(
    `a list of at most ${max} texts`,
    (v) => Array.isArray(v) && v.length <= max && v.every((t) => isText(t, LIMITS.textLength)),
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
  all(nested(of, false), rule('an object', isObject), ValidateNested() as PropertyRule);

/** An object of a class, or null. */
export const NestedOrNull = (of: () => Class): PropertyRule =>
  all(nested(of, false), notNull, rule('an object or null', isObject), ValidateNested() as PropertyRule);

/** A list of objects of a class. */
export const NestedList = (of: () => Class, max: number): PropertyRule =>
  all(
    nested(of, true),
    rule(`a list of at most ${max} objects`, (v) => Array.isArray(v) && v.every(isObject)),
    ValidateNested({ each: true }) as PropertyRule,
  );
