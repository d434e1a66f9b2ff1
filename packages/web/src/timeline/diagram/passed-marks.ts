import type { Mark, ShotPath } from '@fleet-rail/core';

/** More laps than this would be a smear. */
const MOST_LAPS = 40;

/** A mark that is passed at a distance, in one of the laps of a closed path. */
export interface PassedMark {
  readonly mark: Mark;
  readonly lap: number;
  readonly at: number;
}

/**
 * Marks of a path between two distances, metres. Round a closed path a mark is passed in every lap, before its start
 * too, if a ride goes back.
 *
 * @param evaluated the path as it is evaluated; nothing of it where it has no curve
 */
export function passedMarks(
  path: Pick<ShotPath, 'marks'> | undefined,
  evaluated: { readonly closed: boolean; readonly length: number } | undefined,
  [low, high]: readonly [number, number],
): PassedMark[] {
  const length = evaluated?.closed ? evaluated.length : 0;
  const from = length > 0 ? Math.floor(low / length) : 0;
  const count = length > 0 ? Math.min(MOST_LAPS, Math.ceil(high / length) - from) : 1;
  return Array.from({ length: count }, (_, n) => from + n).flatMap((lap) =>
    (path?.marks ?? [])
      .map((mark) => ({ mark, lap, at: mark.distance + lap * length }))
      .filter(({ at }) => at >= low && at <= high),
  );
}
