import { PayloadTooLargeException, ValidationPipe, type ArgumentMetadata } from '@nestjs/common';
import type { DocumentThreads } from '../documents/document-threads.js';
import { heldApart } from './held-apart.js';
import { LargeBody } from './json-body.js';

/**
 * Makes a body an instance of its class and refuses what does not fit it. Documents and plans in it are checked by readers of their
 * own, and a large body is read in a thread.
 */
export class BodyPipe extends ValidationPipe {
  /** @param threads null in such a thread */
  constructor(private readonly threads: DocumentThreads | null) {
    super({ whitelist: true, forbidNonWhitelisted: true, transform: true });
  }

  override async transform(value: unknown, metadata: ArgumentMetadata): Promise<unknown> {
    const { metatype } = metadata;
    const apart = heldApart(metatype);
    if (value instanceof LargeBody) {
      if (apart === null || metatype === undefined || this.threads === null)
        throw new PayloadTooLargeException('The body has over 1 MB; expected less here.');
      return this.threads.readBody(value.bytes, metatype.name);
    }
    if (apart === null || typeof value !== 'object' || value === null)
      return super.transform(value, metadata);
    const given = value as Record<string, unknown>;
    const held = [...apart].filter(([key, { fits }]) => fits(given[key]));
    const empty = Object.fromEntries(held.map(([key]) => [key, Array.isArray(given[key]) ? [] : {}]));
    const body = (await super.transform({ ...given, ...empty }, metadata)) as object;
    return Object.assign(
      body,
      Object.fromEntries(held.map(([key, { read }]) => [key, read(given[key] as object)])),
    );
  }
}
