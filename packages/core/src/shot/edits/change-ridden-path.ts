import { freeId, freeName } from '../../document/free-name.js';
import type { Attachment } from '../../document/shot-attachment.js';
import type { Rider } from '../../document/shot-rider.js';
import type { ShotPath } from '../../document/shot-path.js';
import type { Shot } from '../../document/shot.js';
import { startPaceAt as beginPaceAt } from '../../motion/pace/change-keys.js';
import { compiledPaceOf } from '../../motion/pace/compiled-pace-of.js';
import { compiledPathOf } from '../../geometry/path/compiled-path-of.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';
import { PathError } from '../../geometry/path/path-error.js';
import { hasOwnPace, headOf } from '../../motion/timing/leader.js';
import { joinPaths, type JoinEnds } from '../../geometry/reshape/join-paths.js';
import { reversePath } from '../../geometry/reshape/reverse.js';
import { startPathAt, chooseFirst, splitPath } from '../../geometry/reshape/split-path.js';
import { dressingStartedAt, dressingJoined, dressingReversed, dressingSplit } from './keep-dressing.js';
import { withoutTurnouts } from './without-turnouts.js';
import { carryOver, type PathChange } from './carry-over.js';

// Changes of a path that keep its curve: what rides it stays where it is, at every frame.

/**
 * A path run the other way. Its riders stay on their way, and so travel backward along the path; or, with
 * `turnRiders`, they keep their keys and go the other way with it.
 *
 * @throws PathError where the path has no curve
 */
export function reverseRiddenPath(shot: Shot, id: string, turnRiders = false): Shot {
  const path = pathOf(shot, id);
  const from = curveOf(path);
  const reversed = reversePath(path, from.length);
  const after = dressingReversed(withPath(shot, id, reversed), id, from.length);
  if (turnRiders) return after;
  const change = { from, to: curveOf(reversed), path: id, sign: -1, shift: from.length } as const;
  return carryRiders(after, id, () => change);
}

/**
 * A closed path that begins at another of its points. Its riders stay where they are, or start there as well, each at its own frame.
 *
 * @throws PathError where the path has no curve or is open
 */
export function beginRiddenPathAt(shot: Shot, id: string, index: number, startRiders = false): Shot {
  const path = pathOf(shot, id);
  const { path: begun, start } = chooseFirst(path, index);
  const moved = movedStart(shot, path, begun, start);
  if (!startRiders) return moved;
  const riders = moved.riders.map((rider): Rider => {
    const { attachment } = rider;
    if (attachment?.path !== id || !hasOwnPace(attachment)) return rider;
    const { pace } = attachment;
    const first = (pace.mode === 'keys' ? pace.keys[0] : undefined) ?? pace.start;
    return { ...rider, attachment: { ...attachment, pace: beginPaceAt(pace, first.frame, 0) } };
  });
  return { ...moved, riders };
}

/**
 * A closed path opened at a distance along it.
 *
 * @throws PathError where the path has no curve or is open
 */
export function openRiddenPath(shot: Shot, id: string, s: number): Shot {
  const path = pathOf(shot, id);
  const start = curveOf(path).wrap(s);
  return movedStart(shot, path, startPathAt(path, start, false), start);
}

function movedStart(shot: Shot, path: ShotPath, begun: ShotPath, start: number): Shot {
  const from = curveOf(path);
  const to = curveOf(begun);
  const laid = dressingStartedAt(withPath(shot, path.id, begun), path.id, start, from.length);
  return carryRiders(laid, path.id, (attachment) => {
    const at = distanceAtStart(shot, attachment, from) - start;
    // Whole laps more or less are the same places: the rider begins within the first.
    const laps = Math.floor(at / from.length + 1e-12);
    return { from, to, path: path.id, sign: 1, shift: -start - laps * from.length };
  });
}

/**
 * An open path cut in two at a distance. A rider goes with the part it is on at the first frame; one that
 * would cross the cut waits at it.
 *
 * @returns the shot, and the id of the second part
 * @throws PathError where the path has no curve, is closed, or nothing would be left on one side
 */
export function splitRiddenPath(shot: Shot, id: string, s: number): { shot: Shot; secondId: string } {
  const path = pathOf(shot, id);
  const [first, second] = splitPath(path, s);
  const secondId = freeId(`${id}-2`, shot.paths);
  const paths = shot.paths.flatMap((other) =>
    other.id === id
      ? [first, { ...second, id: secondId, name: freeName(`${path.name} 2`, shot.paths) }]
      : [other],
  );
  const from = curveOf(path);
  const parts = [curveOf(first), curveOf(second)];
  const laid = dressingSplit({ ...shot, paths }, id, secondId, s);
  const after = carryRiders(laid, id, (attachment): PathChange => {
    const onSecond = distanceAtStart(shot, attachment, from) + attachment.offset.along >= s;
    return onSecond
      ? { from, to: parts[1], path: secondId, sign: 1, shift: -s }
      : { from, to: parts[0], path: id, sign: 1, shift: 0 };
  });
  return { shot: after, secondId };
}

/**
 * Two open paths as one under the first one's id, with a bridge if their ends are apart. It has the direction of the
 * first; the second is reversed if necessary.
 *
 * @param tension how far the bridge swings out, 1 for as far as the gap is wide
 * @throws PathError where one has no curve or is closed
 */
export function joinRiddenPaths(
  shot: Shot,
  firstId: string,
  secondId: string,
  ends: JoinEnds,
  tension = 1,
): Shot {
  let before = shot;
  if (ends.first === 'start') before = reverseRiddenPath(before, firstId);
  if (ends.second === 'end') before = reverseRiddenPath(before, secondId);
  const first = pathOf(before, firstId);
  const second = pathOf(before, secondId);
  const { path, secondStart } = joinPaths(first, second, tension);
  const to = curveOf(path);
  const paths = before.paths.flatMap((other) =>
    other.id === firstId ? [path] : other.id === secondId ? [] : [other],
  );
  const along = { to, path: firstId, sign: 1 } as const;
  const laid = dressingJoined(
    { ...before, paths },
    { id: firstId, length: curveOf(first).length },
    { id: secondId, length: curveOf(second).length, start: secondStart },
  );
  const onFirst = carryRiders(laid, firstId, () => ({
    ...along,
    from: curveOf(first),
    shift: 0,
  }));
  const onBoth = carryRiders(onFirst, secondId, () => ({
    ...along,
    from: curveOf(second),
    shift: secondStart,
  }));
  const joined = withoutTurnouts(onBoth, secondId);
  // It was turned round for its start to be met, and goes its own way again.
  return ends.first === 'start' ? reverseRiddenPath(joined, firstId) : joined;
}

function pathOf(shot: Shot, id: string): ShotPath {
  const path = shot.paths.find((other) => other.id === id);
  if (path === undefined) throw new Error(`There is no path "${id}".`);
  return path;
}

function withPath(shot: Shot, id: string, path: ShotPath): Shot {
  return { ...shot, paths: shot.paths.map((other) => (other.id === id ? path : other)) };
}

function carryRiders(shot: Shot, id: string, change: (leader: Attachment) => PathChange): Shot {
  const onPath = new Map(
    shot.riders.filter(({ attachment }) => attachment?.path === id).map((rider) => [rider.id, rider]),
  );
  const find = (other: string) => onPath.get(other);
  return {
    ...shot,
    riders: shot.riders.map((rider) => {
      if (rider.attachment?.path !== id) return rider;
      const leader = headOf(rider, find).attachment ?? rider.attachment;
      const motion = change(leader);
      const s = distanceAtStart(shot, leader, motion.from);
      return { ...rider, attachment: carryOver(rider.attachment, motion, s) };
    }),
  };
}

/** The curve of a path, computed once for as long as that is unchanged; throws why there is none. */
function curveOf(path: ShotPath): CompiledPath {
  const curve = compiledPathOf(path);
  if (curve instanceof PathError) throw curve;
  return curve;
}

function distanceAtStart(shot: Shot, attachment: Attachment, path: CompiledPath): number {
  return compiledPaceOf(attachment.pace, shot.fps, path).distance(shot.range.first);
}
