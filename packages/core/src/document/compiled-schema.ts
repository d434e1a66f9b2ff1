import { getMetadataStorage } from 'class-validator';
import { plainName } from './plain-name.js';
import { plainLeaf, plainRead } from './plain-value.js';

type Class = new () => object;

/** Objects of a class in a field, beside its rules. */
interface NestedPart {
  readonly of: () => Class;
  readonly each: boolean;
}

interface Field {
  readonly key: string;
  readonly rules: readonly ((value: unknown) => boolean)[];
  /** Whether null is taken without a look at the rules. */
  readonly orNull: boolean;
  readonly part: { readonly schema: Schema; readonly each: boolean } | null;
  readonly isName: boolean;
  /** As plain data; undefined where the field has to be given. */
  readonly byDefault: unknown;
}

interface Schema {
  readonly fields: readonly Field[];
  readonly keys: ReadonlySet<string>;
}

const parts = new Map<object, Map<string, NestedPart>>();

/** Notes which class a field's objects are of. */
export function notePart(prototype: object, key: string, of: () => Class, each: boolean): void {
  const known = parts.get(prototype) ?? new Map<string, NestedPart>();
  parts.set(prototype, known.set(key, { of, each }));
}

/** Class of a field's object, or of the objects in its list; null for any other field. */
export function partOf(
  prototype: object,
  key: string,
): { readonly of: Class; readonly each: boolean } | null {
  const part = parts.get(prototype)?.get(key);
  return part === undefined ? null : { of: part.of(), each: part.each };
}

const names = new Map<object, Set<string>>();

/** Notes that a field is a name for people to read. */
export function noteName(prototype: object, key: string): void {
  names.set(prototype, (names.get(prototype) ?? new Set()).add(key));
}

const schemas = new Map<Class, Schema>();

/**
 * Data of unknown origin as a document's class has it, defaults filled in, as plain data. The rules are class-validator's,
 * from its own store; they are asked in one pass, which is many times as quick as building its instances first.
 *
 * @returns null where a rule does not hold: which one, class-validator tells
 */
export function readBySchema(of: Class, raw: unknown): object | null {
  return read(schemaOf(of), raw);
}

/** The same data as instances of the classes, valid or not: for class-validator to report on. */
export function instanceBySchema(of: Class, raw: object): object {
  const known = parts.get(of.prototype as object);
  const instance = new of() as Record<string, unknown>;
  for (const [key, value] of Object.entries(raw) as [string, unknown][]) {
    if (value === undefined || NEVER_FIELDS.has(key)) continue;
    const part = known?.get(key);
    instance[key] = part ? nestedInstance(part.of(), value) : value;
  }
  return instance;
}

/** Set, these would change the instance itself. */
const NEVER_FIELDS: ReadonlySet<string> = new Set(['__proto__', 'constructor']);

function nestedInstance(of: Class, value: unknown): unknown {
  if (Array.isArray(value)) return value.map((one) => nestedInstance(of, one));
  return typeof value === 'object' && value !== null ? instanceBySchema(of, value) : value;
}

function read(schema: Schema, raw: unknown): object | null {
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) return null;
  const source = raw as Record<string, unknown>;
  for (const key in source) if (source[key] !== undefined && !schema.keys.has(key)) return null;
  const out: Record<string, unknown> = {};
  for (const field of schema.fields) {
    const given = source[field.key];
    const value = given === undefined ? plainRead(field.byDefault) : readField(field, given);
    if (value === INVALID) return null;
    // Rules of an optional field say that it is optional.
    if (given === undefined && value === undefined && !field.rules.every((holds) => holds(undefined)))
      return null;
    if (value !== undefined) out[field.key] = value;
  }
  return out;
}

const INVALID = Symbol('invalid');

function readField({ rules, orNull, part, isName }: Field, given: unknown): unknown {
  if (orNull && given === null) return null;
  const value = part === null ? plainLeaf(given) : given;
  for (const holds of rules) if (!holds(value)) return INVALID;
  if (part === null) return isName ? plainName(value as string) : value;
  if (!part.each) return read(part.schema, value) ?? INVALID;
  const list: object[] = [];
  for (const entry of value as unknown[]) {
    const object = read(part.schema, entry);
    if (object === null) return INVALID;
    list.push(object);
  }
  return list;
}

function schemaOf(of: Class): Schema {
  const known = schemas.get(of);
  if (known) return known;
  const storage = getMetadataStorage();
  const metadata = storage.getTargetValidationMetadatas(of, '', false, false);
  const keys = new Set(metadata.map(({ propertyName }) => propertyName));
  const fields: Field[] = [];
  const schema: Schema = { fields, keys };
  schemas.set(of, schema);
  const defaults = new of() as Record<string, unknown>;
  // Fields have the order in which the class declares them.
  for (const key of new Set([...Object.keys(defaults).filter((own) => keys.has(own)), ...keys])) {
    const own = metadata.filter(({ propertyName }) => propertyName === key);
    const rules = own
      .filter(({ type }) => type === 'customValidation')
      .flatMap(({ constraintCls }) => storage.getTargetValidatorConstraints(constraintCls))
      .map(
        ({ instance }) =>
          (value: unknown) =>
            instance.validate(value) === true,
      );
    const part = parts.get(of.prototype as object)?.get(key);
    fields.push({
      key,
      rules,
      orNull: own.some(({ type }) => type === 'conditionalValidation'),
      part: part ? { schema: schemaOf(part.of()), each: part.each } : null,
      isName: names.get(of.prototype as object)?.has(key) ?? false,
      byDefault: plainRead(defaults[key]),
    });
  }
  return schema;
}
