import {
  PathError,
  bridgeRadius,
  compiledPathOf,
  nearestEnds,
  proposedBridge,
  reversePath,
  type JoinEnds,
  type ShotPath,
} from '@fleet-rail/core';

/** Two paths as they are joined, the end of the first to the start of the second; a path with itself where it is closed. */
export interface BridgedPaths {
  readonly first: ShotPath;
  readonly second: ShotPath;
}

/** Two paths turned so that the ends that meet are the first's end and the second's start. */
export function bridgedPaths(first: ShotPath, second: ShotPath, ends: JoinEnds): BridgedPaths {
  return {
    first: ends.first === 'end' ? first : turned(first),
    second: ends.second === 'start' ? second : turned(second),
  };
}

function turned(path: ShotPath): ShotPath {
  const curve = compiledPathOf(path);
  return curve instanceof PathError ? path : reversePath(path, curve.length);
}

/** The ends of two paths that are nearest; one after the other where one has no curve. */
export function endsThatMeet(first: ShotPath, second: ShotPath): JoinEnds {
  return unlessBroken(() => nearestEnds(first, second)) ?? { first: 'end', second: 'start' };
}

/** The tension of the bridge that is proposed between two paths; 1 where there is none, or one has no curve. */
export function proposedTension({ first, second }: BridgedPaths): number {
  return unlessBroken(() => proposedBridge(first, second).tension) ?? 1;
}

/** The radius of the tightest bend of a bridge, metres; null where it is straight, or there is none. */
export function tightestBend({ first, second }: BridgedPaths, tension: number): number | null {
  return unlessBroken(() => bridgeRadius(first, second, tension));
}

/** Result for curves; null without them, which the operation itself reports. */
function unlessBroken<T>(ask: () => T): T | null {
  try {
    return ask();
  } catch (error) {
    if (error instanceof PathError) return null;
    throw error;
  }
}
