import type { Rider } from '../document/shot-rider.js';
import { uniqueNames } from '../document/unique-names.js';

/** A name for each rider that no other has. */
export function riderNames(riders: readonly Pick<Rider, 'name'>[]): string[] {
  return uniqueNames(
    riders.map(({ name }) => name),
    () => 'rider',
  );
}
