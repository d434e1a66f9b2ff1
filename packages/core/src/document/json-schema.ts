import { getMetadataStorage } from 'class-validator';
import { partOf } from './compiled-schema.js';

type Class = new () => object;

/** A JSON Schema (draft 2020-12) of one value. */
export type JsonSchema = { readonly [keyword: string]: unknown };

/** What a rule says of a value beside its test: in words, and as JSON Schema as far as that can say it. */
export interface RuleMeaning {
  readonly expected: string;
  readonly schema: JsonSchema;
}

/** A field of a class of the document. */
export interface FieldMeaning {
  readonly key: string;
  readonly expected: string;
  readonly schema: JsonSchema;
  /** Class of its object, or of the objects in its list. */
  readonly part: { readonly of: Class; readonly each: boolean } | null;
  readonly orNull: boolean;
  /** As plain data; undefined without a default. */
  readonly byDefault: unknown;
  readonly isRequired: boolean;
}

/** Fields of a class of the document in the order of their declaration, required ones first. */
export function fieldsOf(of: Class): FieldMeaning[] {
  const storage = getMetadataStorage();
  const metadata = storage.getTargetValidationMetadatas(of, '', false, false);
  const defaults = JSON.parse(JSON.stringify(new of())) as Record<string, unknown>;
  const keys = new Set(metadata.map(({ propertyName }) => propertyName));
  const fields = [...new Set([...Object.keys(defaults).filter((key) => keys.has(key)), ...keys])].map(
    (key) => {
      const own = metadata.filter(({ propertyName }) => propertyName === key);
      const rules = own.filter(({ type }) => type === 'customValidation');
      const meaning = rules[0].context as RuleMeaning;
      const byDefault = defaults[key];
      const allowsNothing = rules
        .flatMap(({ constraintCls }) => storage.getTargetValidatorConstraints(constraintCls))
        .every(({ instance }) => instance.validate(undefined) === true);
      return {
        key,
        ...meaning,
        part: partOf(of.prototype as object, key),
        orNull: own.some(({ type }) => type === 'conditionalValidation'),
        byDefault,
        isRequired: byDefault === undefined && !allowsNothing,
      };
    },
  );
  return [
    ...fields.filter(({ isRequired }) => isRequired),
    ...fields.filter(({ isRequired }) => !isRequired),
  ];
}

/** Classes of a document from its root on, each once, in the order in which they are reached. */
export function classesOf(root: Class): Class[] {
  const found = new Set<Class>([root]);
  for (const one of found) for (const { part } of fieldsOf(one)) if (part) found.add(part.of);
  return [...found];
}

/**
 * The JSON Schema of a class and all that it holds. References between parts of a document, sums and orders that the schema
 * language cannot express are checked by `parseShot` alone.
 */
export function jsonSchemaOf(root: Class, title: string): JsonSchema {
  const definitions = Object.fromEntries(classesOf(root).map((one) => [one.name, definitionOf(one)]));
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title,
    $ref: `#/$defs/${root.name}`,
    $defs: definitions,
  };
}

function definitionOf(of: Class): JsonSchema {
  const fields = fieldsOf(of);
  return {
    type: 'object',
    additionalProperties: false,
    required: fields.filter(({ isRequired }) => isRequired).map(({ key }) => key),
    properties: Object.fromEntries(fields.map((field) => [field.key, propertyOf(field)])),
  };
}

function propertyOf({ expected, schema, part, orNull, byDefault }: FieldMeaning): JsonSchema {
  const reference = part && { $ref: `#/$defs/${part.of.name}` };
  const value = reference === null ? schema : part?.each ? { ...schema, items: reference } : reference;
  return {
    description: expected,
    ...(orNull ? { anyOf: [value, { type: 'null' }] } : value),
    ...(byDefault === undefined ? {} : { default: byDefault }),
  };
}
