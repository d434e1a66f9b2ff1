import type { Rider } from '@fleet-rail/core';

/**
 * Source of a rider's motion, in a word or two.
 *
 * @param path the name of the path it rides
 */
export function ridesWhat(
  { frozen, attachment, follow, transformKeys, parent }: Rider,
  path: string | undefined,
): string {
  if (frozen !== null) return 'frozen';
  if (attachment !== null && path !== undefined) return path;
  if (follow !== null) return 'follows';
  if (transformKeys !== null) return 'by hand';
  return parent === null ? 'not attached' : 'carried';
}
