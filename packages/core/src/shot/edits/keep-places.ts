import { dressingReshaped } from './keep-dressing.js';
import type { Cue } from '../../document/shot-cue.js';
import type { Attachment } from '../../document/shot-attachment.js';
import type { Pace, PaceKey } from '../../document/shot-pace.js';
import type { ShotPath } from '../../document/shot-path.js';
import type { Shot } from '../../document/shot.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { metresPerValue } from '../../motion/pace/change-unit.js';
import { SHAPING, compiledPathOf } from '../../geometry/path/compiled-path-of.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';
import { matchPaths, type DistanceMap } from '../../geometry/path/match-paths.js';
import { PathError } from '../../geometry/path/path-error.js';
import { offsetAt } from '../../motion/pose/keyed-offset.js';

/**
 * How places of a path that is changed are found again: nearest, in order (seen from above, where it was only lifted); nearest to where
 * they were moved to; or at the same distance, where the change was only at an end.
 */
export type Correspondence = 'nearest' | 'plan' | 'same' | ((place: Vec3) => Vec3);

/**
 * The shot with a path of another shape in the place of the one with its id. What is at a distance along it stays at its place: keys,
 * starts, stops, zones, limits, marks, and cues that listen to a distance, in whatever unit they are; but for the pace of a rider that
 * stretches with its path.
 *
 * A path without a curve before or after is changed alone.
 */
export function reshapeRiddenPath(
  shot: Shot,
  after: ShotPath,
  correspondence: Correspondence = 'nearest',
): Shot {
  const before = shot.paths.find(({ id }) => id === after.id);
  const paths = shot.paths.map((path) => (path.id === after.id ? after : path));
  const changed = { ...shot, paths };
  const from = before && compiledPathOf(before);
  if (!before || !from || from instanceof PathError || !isInUse(shot, before)) return changed;
  // Nothing that stays where it is is found anew: it would be so but for rounding.
  if (isSameCurve(before, after)) return changed;
  const to = compiledPathOf(after);
  if (to instanceof PathError) return changed;
  const map = mapBetween(from, to, correspondence);
  const riding = new Set(
    shot.riders.filter(({ attachment }) => attachment?.path === after.id).map(({ id }) => id),
  );
  return {
    ...dressingReshaped(changed, after.id, map),
    paths: paths.map((path) => (path === after ? withMarks(before, after, map) : path)),
    riders: shot.riders.map((rider) =>
      rider.attachment && riding.has(rider.id)
        ? { ...rider, attachment: keptAttachment(rider.attachment, from, to, map) }
        : rider,
    ),
    cues: shot.cues.map((cue) => keptCue(cue, riding, map)),
  };
}

/** Whether anything is at a distance along a path. */
function isInUse({ riders, dressing }: Shot, { id, marks }: ShotPath): boolean {
  const ends = dressing.some(({ path, from, to }) => path === id && (from !== 0 || to !== null));
  return ends || marks.length > 0 || riders.some(({ attachment }) => attachment?.path === id);
}

function mapBetween(from: CompiledPath, to: CompiledPath, how: Correspondence): DistanceMap {
  if (how === 'same') return (s) => s;
  return matchPaths(from, to, typeof how === 'function' ? { moved: how } : { plan: how === 'plan' });
}

/** Marks in order of their distance may not pass the path's end. */
function withMarks(before: ShotPath, after: ShotPath, map: DistanceMap): ShotPath {
  if (before.marks.length === 0) return after;
  return { ...after, marks: before.marks.map((mark) => ({ ...mark, distance: map(mark.distance) })) };
}

function keptAttachment(
  attachment: Attachment,
  from: CompiledPath,
  to: CompiledPath,
  map: DistanceMap,
): Attachment {
  return {
    ...attachment,
    pace: keptPace(attachment.pace, attachment, from, to, map),
    takes: attachment.takes.map((take) => ({
      ...take,
      pace: keptPace(take.pace, attachment, from, to, map),
    })),
  };
}

/** A rider is at its key plus its offset along the path: that position is kept. */
function keptPace(
  pace: Pace,
  attachment: Attachment,
  from: CompiledPath,
  to: CompiledPath,
  places: DistanceMap,
): Pace {
  const map: DistanceMap = pace.stretches ? (s) => (s * to.length) / from.length : places;
  const [metres, becomes] = [from, to].map((path) => metresPerValue(pace, path));
  const alongAt = (frame: number) => offsetAt(attachment, frame).along;
  const still = alongAt(pace.start.frame);
  const distance = (distance: number, along = still) => map(distance + along) - along;
  const value = (old: number, along: number) => distance(old * metres, along) / becomes;
  const key = (one: PaceKey): PaceKey => {
    const along = alongAt(one.frame);
    const kept = value(one.value, along);
    const handle = ([frames, rise]: [number, number]): [number, number] => [
      frames,
      rise === 0 ? 0 : value(one.value + rise, along) - kept,
    ];
    return { ...one, value: kept, in: handle(one.in), out: handle(one.out) };
  };
  const { drive, within } = pace;
  return {
    ...pace,
    keys: pace.keys.map(key),
    speeds: rising(
      pace.speeds.map((one) =>
        one.distance === undefined ? one : { ...one, distance: distance(one.distance) },
      ),
    ),
    drive: {
      ...drive,
      stops: drive.stops.map((stop) => ({ ...stop, distance: distance(stop.distance) })),
      zones: drive.zones.map((zone) => ({ ...zone, from: distance(zone.from), to: distance(zone.to) })),
    },
    start: { ...pace.start, value: value(pace.start.value, still) },
    within: within && [distance(within[0]), distance(within[1])],
  };
}

/** Of two speeds by distance that came to one distance the later one is dropped. */
function rising(speeds: Pace['speeds']): Pace['speeds'] {
  return speeds.filter(
    ({ distance }, i) =>
      distance === undefined || i === 0 || distance > (speeds[i - 1].distance ?? -Infinity),
  );
}

function keptCue(cue: Cue, riding: ReadonlySet<string>, map: DistanceMap): Cue {
  const { trigger, keys } = cue;
  if (trigger.kind !== 'distance' || !riding.has(trigger.rider ?? '')) return cue;
  const moved = keys.map((key) => ({ ...key, at: map(key.at) }));
  return { ...cue, keys: moved.filter(({ at }, i) => i === 0 || at > moved[i - 1].at) };
}

/** Whether two paths are drawn alike, point by point. */
function isSameCurve(a: ShotPath, b: ShotPath): boolean {
  return (
    a.points.length === b.points.length &&
    SHAPING.every((key) => a[key] === b[key]) &&
    a.points.every(
      (point, i) => point === b.points[i] || JSON.stringify(point) === JSON.stringify(b.points[i]),
    )
  );
}
