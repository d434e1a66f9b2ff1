import { freeId, freeName } from '../document/free-name.js';
import type { Displaced, Hitch, Offset } from '../document/shot-hitch.js';
import type { Rider } from '../document/shot-rider.js';
import type { Shot } from '../document/shot.js';
import { LIMITS } from '../document/limits.js';
import { ShotError } from '../document/shot-error.js';
import { seededNumbers } from '../math/seeded.js';
import type { Vec3 } from '../math/vec.js';
import { evaluateShot } from '../evaluate/evaluate-shot.js';
import type { SceneAssets } from '../evaluate/scene-assets.js';
import { positionIn } from '../pose/pose.js';
import { displaceFrame, displacedTwice } from '../pose/displace.js';
import { freeBadge } from './new-rider.js';
import { poseOfRider } from './change-rider.js';

export const ARRANGEMENTS = ['file', 'abreast', 'wedge', 'later', 'moved'] as const;

/** How copies of a rider are placed about it, with its motion. */
export interface Formation {
  readonly count: number;
  /**
   * One behind another, side by side, in a wedge; each so many frames later; or each with the whole ride
   * moved and turned once more.
   */
  readonly arrangement: (typeof ARRANGEMENTS)[number];
  /** From one to the next, metres. */
  readonly spacing: number;
  /** `later`: from one to the next, frames. */
  readonly delay: number;
  /** `moved`: from one to the next, metres, and degrees to the left about where the rider starts. */
  readonly step: Vec3;
  readonly turn: number;
  readonly seed: number;
  /** The most each is varied by, to either side: metres, frames, and parts of the whole. */
  readonly vary: {
    readonly place: number;
    readonly time: number;
    readonly speed: number;
    readonly amplitude: number;
  };
}

/**
 * The shot with copies of a rider in formation. They take their time from it, so that what it is given later
 * they follow; each copy varies by the seed and its own number, whatever the count.
 *
 * @returns the shot, and the ids of the copies
 * @throws ShotError where the shot holds no more riders, or the rider rides nothing
 */
export function formUp(
  shot: Shot,
  assets: SceneAssets,
  leaderId: string,
  formation: Formation,
): { shot: Shot; ids: string[] } {
  const leader = shot.riders.find((rider) => rider.id === leaderId);
  if (!leader?.hitch) throw new ShotError('riders', `"${leaderId}" at rest`, 'a rider on a path to copy');
  if (shot.riders.length + formation.count > LIMITS.riders) {
    throw new ShotError(
      'riders',
      `${shot.riders.length} and ${formation.count} more`,
      `at most ${LIMITS.riders}`,
    );
  }
  const pivot = positionIn(poseOfRider(evaluateShot(shot, assets), leaderId, shot.range.first));
  const riders = [...shot.riders];
  const ids: string[] = [];
  for (let i = 1; i <= formation.count; i++) {
    const id = freeId(leader.name, riders);
    ids.push(id);
    riders.push({
      ...copyOf(leader, leader.hitch, formation, i, pivot),
      id,
      name: freeName(leader.name, riders),
      badge: freeBadge(leader.name, { riders }),
    });
  }
  return { shot: { ...shot, riders }, ids };
}

function copyOf(leader: Rider, hitch: Hitch, formation: Formation, i: number, pivot: Vec3): Rider {
  const { vary } = formation;
  const random = seededNumbers(formation.seed, i);
  const jitter: Vec3 = [random() * vary.place, random() * vary.place, random() * vary.place];
  const delay = random() * vary.time;
  const rate = 1 + random() * vary.speed;
  const amount = 1 + random() * vary.amplitude;
  // What stands on the ground is not lifted off it.
  const onGround = leader.kind === 'vehicle' || leader.kind === 'character';
  const [along, side] = placeIn(formation, i);
  const moved = (offset: Offset): Offset => ({
    ...offset,
    along: offset.along + along + jitter[0],
    side: offset.side + side + jitter[1],
    rise: offset.rise + (onGround ? 0 : jitter[2]),
  });
  const later = formation.arrangement === 'later' ? i * formation.delay : 0;
  const isMoved = formation.arrangement === 'moved';
  return {
    ...leader,
    // A seed of their own, so that they do not beat as one.
    cycles: leader.cycles.map((cycle) => ({
      ...cycle,
      amplitude: cycle.amplitude * amount,
      seed: cycle.seed + i,
    })),
    hitch: {
      ...hitch,
      offset: moved(hitch.offset),
      offsetKeys: hitch.offsetKeys.map((key) => ({ ...key, ...moved(key) })),
      bank: { ...hitch.bank, amount: hitch.bank.amount * amount },
      follows: null,
      pacedBy: { rider: leader.id, delay: later + delay, rate },
      displaced: isMoved ? displacedBy(hitch.displaced, formation, i, amount, pivot) : hitch.displaced,
    },
  };
}

/** Along and to the left of the leader, metres. */
function placeIn({ arrangement, spacing }: Formation, i: number): [number, number] {
  const rank = Math.ceil(i / 2);
  const hand = i % 2 === 1 ? 1 : -1;
  if (arrangement === 'file') return [-i * spacing, 0];
  if (arrangement === 'abreast') return [0, hand * rank * spacing];
  if (arrangement === 'wedge') return [-rank * spacing, hand * rank * spacing];
  return [0, 0];
}

/** The ride turned and scaled about where the leader starts, and moved, i times over. */
function displacedBy(
  before: Displaced | null,
  { step, turn }: Formation,
  i: number,
  size: number,
  pivot: Vec3,
): Displaced {
  const about: Displaced = { translation: [0, 0, 0], turn: i * turn, size };
  const frame = new Float64Array(12);
  frame.set(pivot);
  displaceFrame(about, frame);
  const shift = pivot.map((value, k) => value - frame[k] + i * step[k]) as Vec3;
  const whole: Displaced = { ...about, translation: shift };
  return before ? displacedTwice(before, whole) : whole;
}
