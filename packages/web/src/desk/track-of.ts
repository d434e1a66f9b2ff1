import { PathError, compiledPathOf, type CompiledPath, type Rider, type Shot } from '@fleet-rail/core';

/** The curve a rider rides; null where it rides none. */
export function trackOf(shot: Shot, rider: Rider | null): CompiledPath | null {
  const path = shot.paths.find(({ id }) => id === rider?.hitch?.path);
  const curve = path && compiledPathOf(path);
  return curve && !(curve instanceof PathError) ? curve : null;
}
