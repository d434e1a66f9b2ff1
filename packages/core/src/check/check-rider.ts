import type { FindingKind } from '../document/shot-checks.js';
import type { RawFinding } from './finding.js';
import { findFastCycles } from './fast-cycle.js';
import { findFlips } from './flip.js';
import { findGaitFaults } from './gait-findings.js';
import { findGrip } from './grip.js';
import { findJolts } from './jolt.js';
import { findCorners } from './kink.js';
import { findLevelJumps } from './level-jump.js';
import { findLooseEnds } from './loose-ends.js';
import { findMissing } from './missing-model.js';
import { findNeverMoves } from './never-moves.js';
import { findNoGround } from './no-ground.js';
import { findPastTheEnd } from './past-the-end.js';
import type { RiderLook } from './rider-look.js';
import { findRough } from './rough.js';
import { findSeam } from './seam-findings.js';
import { findTailFirst } from './tail-first.js';
import { findNotOver } from './not-over.js';
import { findOffGround } from './under-ground.js';
import { findWheels } from './wheel-findings.js';

const CHECKS: readonly ((look: RiderLook) => RawFinding[])[] = [
  findMissing,
  findLooseEnds,
  findPastTheEnd,
  findNotOver,
  findNeverMoves,
  findNoGround,
  findOffGround,
  findLevelJumps,
  findCorners,
  findFlips,
  findRough,
  findJolts,
  findGrip,
  findTailFirst,
  findWheels,
  findGaitFaults,
  findFastCycles,
  findSeam,
];

/** Checks of a ride. Dynamic bodies roll, tumble, collide and go round corners as they are meant to. */
const OF_RIDES: ReadonlySet<(look: RiderLook) => RawFinding[]> = new Set([
  findCorners,
  findFlips,
  findRough,
  findJolts,
  findGrip,
  findTailFirst,
  findWheels,
]);

/** A consequence of one fault is not reported again. */
const OF_FOLLOWERS: Partial<Record<FindingKind, readonly FindingKind[]>> = {
  'level-jump': ['under-ground', 'off-ground', 'flip', 'rough', 'jolt'],
  'past-end': ['jolt'],
  kink: ['grip'],
  flip: ['rough'],
};

/** Checks of one rider alone, one a step. */
export function* checkRider(look: RiderLook): Generator<void, RawFinding[], undefined> {
  const all: RawFinding[] = [];
  for (const check of CHECKS) {
    if (look.rider.rigidBody === null || !OF_RIDES.has(check)) all.push(...check(look));
    yield;
  }
  const about = look.fps / 2;
  const together = (a: RawFinding, b: RawFinding) =>
    (a.from ?? -Infinity) <= (b.to ?? Infinity) + about &&
    (a.to ?? Infinity) >= (b.from ?? -Infinity) - about;
  return all.filter(
    (finding) =>
      !all.some((cause) => OF_FOLLOWERS[cause.kind]?.includes(finding.kind) && together(finding, cause)),
  );
}
