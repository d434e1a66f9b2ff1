import type { Shot } from '../../document/shot.js';
import { evaluateShot, type EvaluatedShot } from '../../shot/evaluate/evaluate-shot.js';
import { closingsOf } from '../../shot/loop/closings.js';
import { isOpen, seamOf } from '../../shot/loop/seam-report.js';
import { PathError } from '../../geometry/path/path-error.js';
import { ShotError } from '../../document/shot-error.js';
import { findNear, findUnseen } from '../camera-findings.js';
import { checkRider } from '../check-rider.js';
import { finished } from '../../geometry/math/finished.js';
import type { CheckScene } from '../check-scene.js';
import type { Finding, RawFinding, RemedyKind } from '../finding.js';
import { findIdleCues } from '../idle-cues.js';
import { findOverlap } from '../overlap.js';
import { RiderLook } from '../rider-look.js';
import { setOf } from '../set-of.js';
import { findThroughSet } from '../through-set.js';
import { faceTravel, otherAnchor, turnFreely, turnRound, upByPath } from './facing-ways.js';
import { keepAway, lift, narrowBand, rideLower, stick } from './ground-ways.js';
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
} from './pace-ways.js';
import { detour, roundCorner, smoothTheWay, widenBank } from './path-ways.js';
import type { Remedy, Ways } from './remedy.js';
import { clipStride, plantFeet, takeRadius, takeRig } from './rig-ways.js';

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

const WAYS: Readonly<Record<RemedyKind, Ways>> = {
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
 * The ways out of a finding that really cure it: each was tried, and the shot looked at again.
 *
 * @param evaluated the shot that it was found in
 */
export function remediesOf(
  evaluated: EvaluatedShot,
  scene: CheckScene,
  finding: Pick<Finding, 'kind' | 'rider' | 'other' | 'part' | 'from' | 'to' | 'remedy'>,
): Remedy[] {
  const { shot } = evaluated;
  const rider = shot.riders.find(({ id }) => id === finding.rider);
  const before = lookAgain(evaluated, scene, finding);
  const raw =
    before.alike.find(({ from, to }) => from === finding.from && to === finding.to) ?? before.alike[0];
  if (finding.remedy === null || rider === undefined || raw === undefined) return [];
  const cures = (changed: Shot): boolean => {
    try {
      const after = lookAgain(evaluateShot(changed, evaluated.assets), scene, finding);
      // What cures one matter by a worse one is no cure.
      return after.alike.length < before.alike.length && after.faults <= before.faults;
    } catch (error) {
      if (error instanceof PathError || error instanceof ShotError) return false;
      throw error;
    }
  };
  return WAYS[finding.remedy]({ evaluated, shot, scene, rider, finding: raw }).flatMap((tries) => {
    for (const remedy of tries) if (cures(remedy.shot)) return [remedy];
    return [];
  });
}

/** What of the same kind is found of the same riders, and how many faults of another kind the first of them has. */
function lookAgain(
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
  const others = own ? finished(checkRider(own)) : [];
  const ofTwo = (): RawFinding[] => {
    if (own === null || kind === 'cue-never')
      return findIdleCues(evaluated).filter((one) => one.part === part);
    if (kind === 'through-set') return findThroughSet(own, setOf(evaluated, scene));
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
