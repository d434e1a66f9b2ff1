import type { Rider } from '@fleet-rail/core';

/**
 * What moves a rider, in a word or two.
 *
 * @param path the name of the path it rides
 */
export function ridesWhat({ frozen, hitch, echo, keyed, parent }: Rider, path: string | undefined): string {
  if (frozen !== null) return 'frozen';
  if (hitch !== null && path !== undefined) return path;
  if (echo !== null) return 'after another';
  if (keyed !== null) return 'by hand';
  return parent === null ? 'at rest' : 'carried';
}
