/**
 * A shot document, or a file on its way to becoming one, that cannot be used: says where,
 * what was found and what was expected, in one line fit for an animator to read.
 */
export class ShotError extends Error {
  override readonly name = 'ShotError';

  /**
   * @param path     where, as in `riders[0].attachment.path`; empty for the document as a whole
   * @param found    what stood there, already in words
   * @param expected what would have been right, in words
   */
  constructor(
    readonly path: string,
    readonly found: string,
    readonly expected: string,
  ) {
    super(`${path || 'shot'}: found ${found}; expected ${expected}`);
  }
}

/** A value in a few words for a message: strings quoted and cut, containers by their kind. */
export function inWords(value: unknown): string {
  if (value === undefined) return 'nothing';
  if (typeof value === 'string') {
    return JSON.stringify(value.length > 40 ? `${value.slice(0, 40)}…` : value);
  }
  if (Array.isArray(value)) {
    const short = value.length <= 4 && value.every((v) => typeof v === 'number');
    return short ? `[${value.join(', ')}]` : `a list of ${value.length}`;
  }
  if (value !== null && typeof value === 'object') return 'an object';
  return String(value);
}
