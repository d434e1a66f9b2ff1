import { freeId, freeName } from '../../document/free-name.js';
import type { Dressing } from '../../document/shot-dressing.js';
import type { Shot } from '../../document/shot.js';

// Dressing along a path keeps its positions, whatever becomes of the path's distances.

function changeDressing<T extends Pick<Shot, 'dressing'>>(
  shot: T,
  path: string,
  change: (laid: Dressing) => Dressing[],
): T {
  if (shot.dressing.every((laid) => laid.path !== path)) return shot;
  return { ...shot, dressing: shot.dressing.flatMap((laid) => (laid.path === path ? change(laid) : [laid])) };
}

/** A path of a length was reversed. */
export const dressingReversed = <T extends Pick<Shot, 'dressing'>>(
  shot: T,
  path: string,
  length: number,
): T =>
  changeDressing(shot, path, (laid) => [
    {
      ...laid,
      from: laid.to === null ? 0 : length - laid.to,
      // Dressing from the start to the end still covers both.
      to: laid.from === 0 ? null : length - laid.from,
      offset: { ...laid.offset, side: -laid.offset.side || 0 },
      profile: laid.profile.map(([x, y]): [number, number] => [-x || 0, y]),
    },
  ]);

/** A closed path begins at another distance. */
export const dressingStartedAt = <T extends Pick<Shot, 'dressing'>>(
  shot: T,
  path: string,
  start: number,
  length: number,
): T =>
  changeDressing(shot, path, (laid) => {
    if (laid.from === 0 && laid.to === null) return [laid];
    const from = (((laid.from - start) % length) + length) % length;
    return [{ ...laid, from, to: laid.to === null ? from + length : laid.to - laid.from + from }];
  });

/** A path of a length was cut in two; dressing over the cut is on both parts. */
export function dressingSplit(shot: Shot, path: string, second: string, s: number): Shot {
  const taken: Dressing[] = [...shot.dressing];
  return changeDressing(shot, path, (laid) => {
    const onFirst = laid.from < s;
    const onSecond = laid.to === null || laid.to > s;
    const rest: Dressing = {
      ...laid,
      path: second,
      from: Math.max(0, laid.from - s),
      to: laid.to === null ? null : laid.to - s,
    };
    if (!onFirst) return [rest];
    const begun: Dressing = { ...laid, to: onSecond ? null : laid.to };
    if (!onSecond) return [begun];
    const copy = { ...rest, id: freeId(laid.id, taken), name: freeName(laid.name, taken) };
    taken.push(copy);
    return [begun, copy];
  });
}

/** A path of a length continues in a second one, which begins at a distance along it. */
export function dressingJoined(
  shot: Shot,
  first: { readonly id: string; readonly length: number },
  second: { readonly id: string; readonly length: number; readonly start: number },
): Shot {
  const ended = changeDressing(shot, first.id, (laid) => [{ ...laid, to: laid.to ?? first.length }]);
  return changeDressing(ended, second.id, (laid) => [
    {
      ...laid,
      path: first.id,
      from: laid.from + second.start,
      to: laid.to === null ? null : laid.to + second.start,
    },
  ]);
}

/** A path has another shape, on which distances are others. */
export const dressingReshaped = <T extends Pick<Shot, 'dressing'>>(
  shot: T,
  path: string,
  map: (s: number) => number,
): T =>
  changeDressing(shot, path, (laid) => [
    {
      ...laid,
      from: laid.from === 0 ? 0 : map(laid.from),
      to: laid.to === null ? null : map(laid.to),
    },
  ]);

/** The shot without what lies along a path that goes. */
export const withoutDressingOn = <T extends Pick<Shot, 'dressing'>>(shot: T, path: string): T =>
  changeDressing(shot, path, () => []);
