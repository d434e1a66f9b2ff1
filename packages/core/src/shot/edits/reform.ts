import { ShotError } from '../../document/shot-error.js';
import type { Attachment, Offset } from '../../document/shot-attachment.js';
import type { ShotFormation } from '../../document/shot-formation.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import type { SceneAssets } from '../evaluate/scene-assets.js';
import {
  displacementOf,
  followBy,
  shareOf,
  startOf,
  withCopies,
  type Formation,
  type Placed,
  type Share,
} from './formation.js';
import { removeRider } from './remove-riders.js';
import { seamRates } from './seam-rates.js';

/**
 * The shot with a changed formation: its members change by the same differences, so that single changes stay; members
 * that left it are not touched. It grows by copies of its leader as that is now, and shrinks from its end.
 *
 * @returns the shot, and the ids of the members
 * @throws ShotError where there is no such formation, its leader rides nothing, or the shot holds no more riders
 */
export function reform(
  shot: Shot,
  assets: SceneAssets,
  id: string,
  { count, ...wanted }: Formation,
): { shot: Shot; ids: string[] } {
  const before = shot.formations.find((one) => one.id === id);
  const leader = shot.riders.find((rider) => rider.id === before?.leader);
  if (!before || !leader) throw new ShotError('formations', `no "${id}"`, 'a formation of a rider');
  if (leader.attachment === null && wanted.arrangement === 'moved')
    throw new ShotError(
      'riders',
      `"${leader.id}" on no path`,
      'a rider on a path, whose whole ride can be moved',
    );
  const rates = seamRates(shot, assets, leader);
  const about = startOf(shot, assets, leader.id);
  // The rate of a formation's loop is read from its member, not from what closes now.
  const was: Placed = { ...before, rates: (rate) => rate };
  const now: Placed = { ...wanted, about, rates };
  const staying = new Map(
    before.members
      .slice(0, count)
      .flatMap((member, k) => (member === null ? [] : [[member, k + 1] as const])),
  );
  const riders = shot.riders.map((rider) => {
    const i = staying.get(rider.id);
    return i !== undefined && isCopyOf(rider, leader) ? replaced(rider, leader, was, now, i) : rider;
  });
  const grown = withCopies(riders, leader, now, before.members.length + 1, count);
  const members = [...before.members.slice(0, count), ...grown.ids];
  const formation: ShotFormation = { ...before, ...wanted, about, members };
  const formations = shot.formations.map((one) => (one === before ? formation : one));
  const gone = before.members
    .slice(count)
    .filter((member) => shot.riders.some((rider) => rider.id === member && isCopyOf(rider, leader)));
  const thinned = gone.reduce<Shot>(
    (left, member) => removeRider(left, assets, member as string, shot.range.first),
    { ...shot, riders: grown.riders, formations },
  );
  return { shot: thinned, ids: members.filter((member) => member !== null) };
}

/** Whether a rider still has its leader's pace. */
const isCopyOf = ({ attachment, follow }: Rider, leader: Rider): boolean =>
  attachment ? attachment.pacedBy?.rider === leader.id : follow?.rider === leader.id;

function replaced(rider: Rider, leader: Rider, was: Placed, now: Placed, i: number): Rider {
  const [old, next] = [shareOf(leader, was, i), shareOf(leader, now, i)];
  const moved = <T extends Offset>(offset: T): T => ({
    ...offset,
    along: offset.along + next.along - old.along,
    side: offset.side + next.side - old.side,
    rise: offset.rise + next.rise - old.rise,
  });
  const amount = next.amount / old.amount;
  const cycles = rider.cycles.map((cycle) => ({ ...cycle, amplitude: cycle.amplitude * amount }));
  const { attachment, follow } = rider;
  if (attachment === null) {
    if (follow === null) return rider;
    const place = moved({ ...NO_TURN, along: -follow.behind, side: follow.side, rise: follow.rise });
    const delay = follow.delay + next.delay - old.delay;
    return { ...rider, cycles, follow: followBy(leader.id, { ...next, ...place, delay }) };
  }
  const paced = attachment.pacedBy as NonNullable<Attachment['pacedBy']>;
  return {
    ...rider,
    cycles,
    attachment: {
      ...attachment,
      offset: moved(attachment.offset),
      offsetKeys: attachment.offsetKeys.map(moved),
      bank: { ...attachment.bank, amount: attachment.bank.amount * amount },
      pacedBy: {
        ...paced,
        delay: paced.delay + next.delay - old.delay,
        rate: rateOf(paced.rate, was, now, old, next),
      },
      rideTransform: leader.attachment
        ? displacedAnew(attachment, leader.attachment, was, now, i, [old, next])
        : attachment.rideTransform,
    },
  };
}

const NO_TURN = { yaw: 0, pitch: 0, roll: 0 };

/** A rate that was set by hand stays; else it is what the formation now gives. */
function rateOf(rate: number, was: Placed, now: Placed, old: Share, next: Share): number {
  const same = was.vary.speed === now.vary.speed && was.seed === now.seed;
  return same && Math.abs(rate - old.rate) > 1e-9 && Math.abs(rate - next.rate) > 1e-9 ? rate : next.rate;
}

/** A whole ride that was moved by hand stays where it is; else it goes where the formation now has it. */
function displacedAnew(
  { rideTransform }: Attachment,
  led: Attachment,
  was: Placed,
  now: Placed,
  i: number,
  [old, next]: readonly [Share, Share],
): Attachment['rideTransform'] {
  const before = displacementOf(led, was, i, old.amount);
  const same = JSON.stringify(before) === JSON.stringify(rideTransform);
  return same ? displacementOf(led, now, i, next.amount) : rideTransform;
}
