import { freeId, freeName } from '../../document/free-name.js';
import { LIMITS } from '../../document/limits.js';
import { ShotError } from '../../document/shot-error.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import type { SceneAssets } from '../evaluate/scene-assets.js';
import { withAttachment } from './change-rider.js';
import { freeBadge } from './new-rider.js';
import { removeRider } from './remove-riders.js';

/** The units that hang behind a rider, the nearest first. */
export function unitsBehind(riders: readonly Rider[], leader: Rider): Rider[] {
  const units: Rider[] = [];
  for (let end = leader; units.length <= riders.length; end = units[units.length - 1]) {
    const next = riders.find(({ attachment }) => attachment?.coupledTo?.rider === end.id);
    if (next === undefined || units.includes(next)) break;
    units.push(next);
  }
  return units;
}

/**
 * The shot with the string behind a rider changed: another gap for all units whose gap was not set by itself, and more copies of its last
 * unit at its end, or fewer.
 *
 * @returns the shot, and the ids of the units
 * @throws ShotError where nothing hangs behind it, or the shot holds no more riders
 */
export function changeString(
  shot: Shot,
  assets: SceneAssets,
  leaderId: string,
  { count, gap }: { readonly count: number; readonly gap: number },
): { shot: Shot; ids: string[] } {
  const leader = shot.riders.find(({ id }) => id === leaderId);
  const units = leader ? unitsBehind(shot.riders, leader) : [];
  const last = units[units.length - 1];
  if (last === undefined) throw new ShotError('riders', 'no string', 'a rider with units behind it');
  const more = count - units.length;
  if (shot.riders.length + more > LIMITS.riders)
    throw new ShotError('riders', `${shot.riders.length} and ${more} more`, `at most ${LIMITS.riders}`);
  const common = commonGap(units);
  let changed = units.reduce<Shot>(
    (before, { id }) =>
      withAttachment(before, id, (attachment) =>
        attachment.coupledTo?.gap === common
          ? { ...attachment, coupledTo: { ...attachment.coupledTo, gap } }
          : attachment,
      ),
    shot,
  );
  const ids = units.map(({ id }) => id);
  for (let i = 0; i < more; i++) {
    const { riders } = changed;
    const id = freeId(units[0].name, riders);
    const copy: Rider = {
      ...last,
      id,
      name: freeName(units[0].name, riders),
      badge: freeBadge(units[0].name, { riders }),
      attachment: last.attachment && { ...last.attachment, coupledTo: { rider: ids[ids.length - 1], gap } },
    };
    changed = { ...changed, riders: [...riders, copy] };
    ids.push(id);
  }
  // From its end: what hangs behind one that goes would close up.
  const gone = ids.slice(count).reverse();
  const thinned = gone.reduce((left, id) => removeRider(left, assets, id, shot.range.first), changed);
  return { shot: thinned, ids: ids.slice(0, count) };
}

/** The gap that most units have. */
export function commonGap(units: readonly Rider[]): number {
  const gaps = units.map(({ attachment }) => attachment?.coupledTo?.gap ?? 0);
  const times = (gap: number) => gaps.filter((other) => other === gap).length;
  return gaps.reduce((best, gap) => (times(gap) > times(best) ? gap : best), gaps[0] ?? 0);
}
