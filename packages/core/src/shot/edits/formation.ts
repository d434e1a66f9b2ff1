import { freeId, freeName } from '../../document/free-name.js';
import type { Follow } from '../../document/shot-follow.js';
import type { RideTransform, Attachment, Offset } from '../../document/shot-attachment.js';
import type { ShotFormation } from '../../document/shot-formation.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { LIMITS } from '../../document/limits.js';
import { ShotError } from '../../document/shot-error.js';
import { seededNumbers } from '../../geometry/math/seeded.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { evaluateShot, isMoving } from '../evaluate/evaluate-shot.js';
import type { SceneAssets } from '../evaluate/scene-assets.js';
import { positionIn } from '../../motion/pose/pose.js';
import { displaceFrame, displacedTwice } from '../../motion/pose/displace.js';
import { freeBadge } from './new-rider.js';
import { seamRates } from './seam-rates.js';
import { poseOfRider } from './change-rider.js';

/** How copies of a rider are placed about it, with its motion. */
export interface Formation extends Omit<ShotFormation, 'id' | 'leader' | 'members' | 'about'> {
  readonly count: number;
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
  { count, ...wanted }: Formation,
): { shot: Shot; ids: string[] } {
  const leader = shot.riders.find((rider) => rider.id === leaderId);
  if (leader === undefined || !isMoving(shot, leader))
    throw new ShotError('riders', `"${leaderId}" at rest`, 'a rider on a path, or moved by hand, to copy');
  if (leader.attachment === null && wanted.arrangement === 'moved')
    throw new ShotError(
      'riders',
      `"${leaderId}" on no path`,
      'a rider on a path, whose whole ride can be moved',
    );
  const about = startOf(shot, assets, leaderId);
  const placed: Placed = { ...wanted, about, rates: seamRates(shot, assets, leader) };
  const { riders, ids } = withCopies(shot.riders, leader, placed, 1, count);
  const id = freeId(leader.name, shot.formations);
  const formation: ShotFormation = { ...wanted, about, id, leader: leaderId, members: ids };
  return { shot: { ...shot, riders, formations: [...shot.formations, formation] }, ids };
}

/** Pose of a rider at the first frame, about which a whole ride is turned. */
export const startOf = (shot: Shot, assets: SceneAssets, id: string): Vec3 =>
  positionIn(poseOfRider(evaluateShot(shot, assets), id, shot.range.first));

/** A formation with what of it is found in the shot. */
export interface Placed extends Omit<Formation, 'count'> {
  readonly about: Vec3;
  /** The nearest rate that closes at the seam. */
  readonly rates: (rate: number) => number;
}

/**
 * Riders with copies of one among them, numbers `from` to `to` of a formation.
 *
 * @throws ShotError where the shot holds no more of them
 */
export function withCopies(
  before: readonly Rider[],
  leader: Rider,
  formation: Placed,
  from: number,
  to: number,
): { riders: Rider[]; ids: string[] } {
  const more = Math.max(0, to - from + 1);
  if (before.length + more > LIMITS.riders)
    throw new ShotError('riders', `${before.length} and ${more} more`, `at most ${LIMITS.riders}`);
  const riders = [...before];
  const ids: string[] = [];
  for (let i = from; i <= to; i++) {
    const id = freeId(leader.name, riders);
    ids.push(id);
    riders.push({
      ...(leader.attachment
        ? copyOf(leader, leader.attachment, formation, i)
        : followOf(leader, formation, i)),
      id,
      name: freeName(leader.name, riders),
      badge: freeBadge(leader.name, { riders }),
    });
  }
  return { riders, ids };
}

/** Difference of a member's number from its leader's. */
export interface Share {
  readonly along: number;
  readonly side: number;
  readonly rise: number;
  readonly delay: number;
  readonly rate: number;
  /** Of amplitudes, bank and, moved as a whole, size. */
  readonly amount: number;
}

export function shareOf(leader: Pick<Rider, 'kind'>, formation: Placed, i: number): Share {
  const { vary } = formation;
  const random = seededNumbers(formation.seed, i);
  const jitter: Vec3 = [random() * vary.place, random() * vary.place, random() * vary.place];
  const late = random() * vary.time;
  const rate = formation.rates(1 + random() * vary.speed);
  const amount = 1 + random() * vary.amplitude;
  // A rider on the ground is not lifted off it.
  const onGround = leader.kind === 'vehicle' || leader.kind === 'character';
  const [along, side] = placeIn(formation, i);
  return {
    along: along + jitter[0],
    side: side + jitter[1],
    rise: onGround ? 0 : jitter[2],
    delay: (formation.arrangement === 'later' ? i * formation.delay : 0) + late,
    rate,
    amount,
  };
}

function copyOf(leader: Rider, attachment: Attachment, formation: Placed, i: number): Rider {
  const { along, side, rise, delay, rate, amount } = shareOf(leader, formation, i);
  const moved = (offset: Offset): Offset => ({
    ...offset,
    along: offset.along + along,
    side: offset.side + side,
    rise: offset.rise + rise,
  });
  return {
    ...leader,
    // A seed of their own, so that they do not beat as one.
    cycles: leader.cycles.map((cycle) => ({
      ...cycle,
      amplitude: cycle.amplitude * amount,
      seed: cycle.seed + i,
    })),
    attachment: {
      ...attachment,
      offset: moved(attachment.offset),
      offsetKeys: attachment.offsetKeys.map((key) => ({ ...key, ...moved(key) })),
      bank: { ...attachment.bank, amount: attachment.bank.amount * amount },
      coupledTo: null,
      pacedBy: { rider: leader.id, delay, rate },
      rideTransform: displacementOf(attachment, formation, i, amount),
    },
  };
}

/** A copy of a rider without a path: it goes where its leader went. */
function followOf(leader: Rider, formation: Placed, i: number): Rider {
  const share = shareOf(leader, formation, i);
  return {
    ...leader,
    cycles: leader.cycles.map((cycle) => ({
      ...cycle,
      amplitude: cycle.amplitude * share.amount,
      seed: cycle.seed + i,
    })),
    parent: null,
    transformKeys: null,
    restAim: null,
    frozen: null,
    parentKeys: [],
    follow: followBy(leader.id, share),
  };
}

/** Share of a formation as the follow of a member. */
export const followBy = (leader: string, { along, side, rise, delay }: Share): Follow => ({
  rider: leader,
  behind: -along || 0,
  side,
  rise,
  delay,
});

/** How the whole ride of a member is moved. */
export function displacementOf(
  { rideTransform }: Pick<Attachment, 'rideTransform'>,
  formation: Placed,
  i: number,
  amount: number,
): RideTransform | null {
  return formation.arrangement === 'moved' ? displacedBy(rideTransform, formation, i, amount) : rideTransform;
}

/** Along and to the left of the leader, metres. */
function placeIn({ arrangement, spacing }: Placed, i: number): [number, number] {
  const rank = Math.ceil(i / 2);
  const hand = i % 2 === 1 ? 1 : -1;
  if (arrangement === 'file') return [-i * spacing, 0];
  if (arrangement === 'abreast') return [0, hand * rank * spacing];
  if (arrangement === 'wedge') return [-rank * spacing, hand * rank * spacing];
  return [0, 0];
}

/** The ride turned and scaled about where the leader starts, and moved, i times over. */
function displacedBy(
  before: RideTransform | null,
  { step, turn, about: pivot }: Placed,
  i: number,
  size: number,
): RideTransform {
  const about: RideTransform = { translation: [0, 0, 0], turn: i * turn, size };
  const frame = new Float64Array(12);
  frame.set(pivot);
  displaceFrame(about, frame);
  const shift = pivot.map((value, k) => value - frame[k] + i * step[k]) as Vec3;
  const whole: RideTransform = { ...about, translation: shift };
  return before ? displacedTwice(before, whole) : whole;
}
