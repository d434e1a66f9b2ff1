import type { Shot } from '../../document/shot.js';
import { evaluateShot, type EvaluatedShot } from '../../shot/evaluate/evaluate-shot.js';
import { closingsOf } from '../../shot/loop/closings.js';
import { isOpen, seamOf } from '../../shot/loop/seam-report.js';
import { PathError } from '../../geometry/path/path-error.js';
import { ShotError } from '../../document/shot-error.js';
import { findNear, findUnseen } from '../camera-findings.js';
import { checkRider } from '../check-rider.js';
import { runToEnd } from '../../geometry/math/run-to-end.js';
import type { CheckScene } from '../check-scene.js';
import type { Finding, RawFinding, FixKind } from '../finding.js';
import { findIdleCues } from '../idle-cues.js';
import { findOverlap } from '../overlap.js';
import { RiderLook } from '../rider-look.js';
import { staticSetOf } from '../static-set.js';
import { findThroughSet } from '../through-set.js';
import { faceTravel, otherAnchor, turnFreely, turnRound, upByPath } from './facing-fixes.js';
import { keepAway, lift, narrowBand, rideLower, stick } from './ground-fixes.js';
import {
  driven,
  pastDoubled,
  makeRange,
  reachEnd,
  setOff,
  shiftStart,
  slowSteps,
  smoothKeys,
  startAlong,
} from './pace-fixes.js';
import { detour, roundCorner, smoothTheWay, widenBank } from './path-fixes.js';
import type { Fix, Ways } from './fix.js';
import { clipStride, plantFeet, takeRadius, takeRig } from './rig-fixes.js';

const closeLoop: Ways = ({ evaluated, rider, scene }) => {
  const gap = seamOf(evaluated, rider, scene.models).find(isOpen);
  return gap ? closingsOf(evaluated, gap).map((closing) => [closing]) : [];
};

const switchOff: Ways = ({ shot, finding }) => [
  [
    {
      label: 'Switch the cue off',
      detail: 'it is kept, but does not play',
      shot: {
        ...shot,
        cues: shot.cues.map((cue) => (cue.name === finding.part ? { ...cue, off: true } : cue)),
      },
    },
  ],
];

const WAYS: Readonly<Record<FixKind, Ways>> = {
  stick,
  lift,
  'keep-away': keepAway,
  detour,
  'ride-lower': rideLower,
  'narrow-band': narrowBand,
  'widen-bank': widenBank,
  'smooth-path': smoothTheWay,
  'round-corner': roundCorner,
  'up-by-path': upByPath,
  'face-travel': faceTravel,
  'turn-round': turnRound,
  drive: driven,
  'smooth-keys': smoothKeys,
  'take-rig': takeRig,
  'take-radius': takeRadius,
  anchor: otherAnchor,
  'plant-feet': plantFeet,
  'shift-start': shiftStart,
  'close-loop': closeLoop,
  'past-doubled': pastDoubled,
  'reach-end': reachEnd,
  'make-range': makeRange,
  'start-along': startAlong,
  'switch-off': switchOff,
  'set-off': setOff,
  'turn-freely': turnFreely,
  'slow-steps': slowSteps,
  'clip-stride': clipStride,
};

/**
 * Fixes that do cure a finding: each was tried, and the shot checked again.
 *
 * @param evaluated the shot that it was found in
 */
export function fixesOf(
  evaluated: EvaluatedShot,
  scene: CheckScene,
  finding: Pick<Finding, 'kind' | 'rider' | 'other' | 'part' | 'from' | 'to' | 'fix'>,
): Fix[] {
  const { shot } = evaluated;
  const rider = shot.riders.find(({ id }) => id === finding.rider);
  const before = recheck(evaluated, scene, finding);
  const raw =
    before.alike.find(({ from, to }) => from === finding.from && to === finding.to) ?? before.alike[0];
  if (finding.fix === null || rider === undefined || raw === undefined) return [];
  const cures = (changed: Shot): boolean => {
    try {
      const after = recheck(evaluateShot(changed, evaluated.assets), scene, finding);
      // A fix that brings a worse finding is none.
      return after.alike.length < before.alike.length && after.faults <= before.faults;
    } catch (error) {
      if (error instanceof PathError || error instanceof ShotError) return false;
      throw error;
    }
  };
  return WAYS[finding.fix]({ evaluated, shot, scene, rider, finding: raw }).flatMap((tries) => {
    for (const fix of tries) if (cures(fix.shot)) return [fix];
    return [];
  });
}

/** Findings of the same kind about the same riders, and the number of faults of another kind that the first of them has. */
function recheck(
  evaluated: EvaluatedShot,
  scene: CheckScene,
  { kind, rider, other, part }: Pick<Finding, 'kind' | 'rider' | 'other' | 'part'>,
): { readonly alike: readonly RawFinding[]; readonly faults: number } {
  const { shot } = evaluated;
  const lookAt = (id: string | null): RiderLook | null => {
    const index = shot.riders.findIndex((one) => one.id === id);
    return index < 0 ? null : new RiderLook(evaluated, shot.riders[index], index, scene);
  };
  const own = lookAt(rider);
  const others = own ? runToEnd(checkRider(own)) : [];
  const ofTwo = (): RawFinding[] => {
    if (own === null || kind === 'cue-never')
      return findIdleCues(evaluated).filter((one) => one.part === part);
    if (kind === 'through-set') return findThroughSet(own, staticSetOf(evaluated, scene));
    if (kind === 'out-of-frame') return findUnseen(own, [], null);
    const second = lookAt(other);
    if (kind === 'overlap') return second ? findOverlap(own, second) : [];
    return kind === 'near' && second ? findNear(own, second) : [];
  };
  return {
    alike: [...others, ...ofTwo()].filter((one) => one.kind === kind),
    faults: others.filter((one) => one.severity === 'fault' && one.kind !== kind).length,
  };
}
