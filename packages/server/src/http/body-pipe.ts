import { ValidationPipe, applyDecorators, type ArgumentMetadata } from '@nestjs/common';
import { IsObject } from 'class-validator';

/** By class the properties that hold a document. */
const documents = new Map<unknown, string[]>();

/** A property that holds a shot document, handed on as it came: whoever reads it looks at all of it. */
export const IsDocument = (): PropertyDecorator =>
  applyDecorators(IsObject(), (target: object, property: string | symbol) => {
    const { constructor } = target;
    documents.set(constructor, [...(documents.get(constructor) ?? []), String(property)]);
  });

/**
 * Makes a body an instance of its class and refuses what does not fit it. Documents in it are left out of that, which would copy a
 * large one three times over for nothing.
 */
export class BodyPipe extends ValidationPipe {
  constructor() {
    super({ whitelist: true, forbidNonWhitelisted: true, transform: true });
  }

  override async transform(value: unknown, metadata: ArgumentMetadata): Promise<unknown> {
    const held = documents.get(metadata.metatype);
    if (held === undefined || !isObject(value)) return super.transform(value, metadata);
    const whole = Object.fromEntries(
      held.filter((key) => isObject(value[key])).map((key) => [key, value[key]]),
    );
    const empty = Object.fromEntries(Object.keys(whole).map((key) => [key, {}]));
    const body = (await super.transform({ ...value, ...empty }, metadata)) as object;
    return Object.assign(body, whole);
  }
}

function isObject(value: unknown): value is Record<string, unknown> {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}
