import { withoutDust } from './dust.js';

/** A number or a list of them without dust; any other value unchanged, at any depth. */
export function plainLeaf(value: unknown): unknown {
  if (typeof value === 'number') return withoutDust(value);
  return Array.isArray(value)
    ? value.map((entry: unknown) => (typeof entry === 'number' ? withoutDust(entry) : entry))
    : value;
}

/** The same data without its classes and without dust, so that it can be compared, drafted and sent between threads. */
export function plainRead(value: unknown): unknown {
  if (typeof value === 'number') return withoutDust(value);
  if (typeof value !== 'object' || value === null) return value;
  if (Array.isArray(value)) return value.map(plainRead);
  const result: Record<string, unknown> = {};
  for (const key of Object.keys(value)) {
    const inner = (value as Record<string, unknown>)[key];
    if (inner !== undefined) result[key] = plainRead(inner);
  }
  return result;
}
