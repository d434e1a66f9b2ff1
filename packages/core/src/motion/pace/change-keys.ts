import { bisect } from '../../geometry/math/search.js';
import type { Ease, Pace, PaceKey } from '../../document/shot-pace.js';
import { keyedCurve } from '../../geometry/math/keyed-curve.js';

// Edits of the keys of a pace. All keep them in order of frame.

/** Least gap between keys, frames. */
const APART = 1e-3;

/**
 * Moves a key and all that follow it in time: a stretch gets longer or shorter, what comes after keeps its shape.
 * The stretch before keeps at least a frame.
 */
export function shiftFrom(pace: Pace, i: number, frames: number): Pace {
  const { keys } = pace;
  const held = i > 0 ? Math.max(frames, keys[i - 1].frame + 1 - keys[i].frame) : frames;
  return { ...pace, keys: keys.map((key, k) => (k < i ? key : { ...key, frame: key.frame + held })) };
}

/** Moves some keys together, by frames and value; none passes a neighbour that stays. */
export function moveKeys(pace: Pace, chosen: ReadonlySet<number>, frames: number, value: number): Pace {
  const { keys } = pace;
  let held = frames;
  for (const i of chosen) {
    if (i > 0 && !chosen.has(i - 1)) held = Math.max(held, keys[i - 1].frame + 1 - keys[i].frame);
    if (i + 1 < keys.length && !chosen.has(i + 1))
      held = Math.min(held, keys[i + 1].frame - 1 - keys[i].frame);
  }
  return {
    ...pace,
    keys: keys.map((key, i) =>
      chosen.has(i) ? { ...key, frame: key.frame + held, value: key.value + value } : key,
    ),
  };
}

/** Scales some keys about a frame and a value; a neighbour that stays is not passed. */
export function scaleKeys(
  pace: Pace,
  chosen: ReadonlySet<number>,
  about: { readonly frame: number; readonly value: number },
  scale: { readonly frames: number; readonly value: number },
): Pace {
  const { keys } = pace;
  const frames = Math.max(scale.frames, 1e-3);
  const handle = ([span, rise]: [number, number]): [number, number] => [span * frames, rise * scale.value];
  const scaled = keys.map((key, i) =>
    chosen.has(i)
      ? {
          ...key,
          frame: about.frame + (key.frame - about.frame) * frames,
          value: about.value + (key.value - about.value) * scale.value,
          in: handle(key.in),
          out: handle(key.out),
        }
      : key,
  );
  const inOrder = scaled.every((key, i) => i === 0 || key.frame - scaled[i - 1].frame >= APART);
  return inOrder ? { ...pace, keys: scaled } : pace;
}

/** Adds a stop at a key: the key again after some frames, with all later ones shifted by them. */
export function stopAtKey(pace: Pace, i: number, frames: number): Pace {
  const { keys } = pace;
  const key = keys[i];
  const begin: PaceKey = { ...key, ease: 'linear' };
  const end: PaceKey = { ...key, frame: key.frame + frames };
  const later = keys.slice(i + 1).map((next) => ({ ...next, frame: next.frame + frames }));
  return { ...pace, keys: [...keys.slice(0, i), begin, end, ...later] };
}

/** The same ride from its end to its start. A held stretch stays one: it holds where it now begins. */
export function swapEnds(pace: Pace): Pace {
  const { keys } = pace;
  if (keys.length === 0) return pace;
  const sum = keys[0].frame + keys[keys.length - 1].frame;
  const back = ([span, rise]: [number, number]): [number, number] => [-span || 0, rise];
  const swapped = keys.map((key, i): PaceKey => {
    const ease: Ease = keys[i - 1]?.ease ?? 'linear';
    return { ...key, frame: sum - key.frame, ease, in: back(key.out), out: back(key.in) };
  });
  return { ...pace, keys: swapped.reverse() };
}

/** Keys on whole frames, each at least one after the one before. */
export function quantiseKeys(pace: Pace): Pace {
  let last = -Infinity;
  const keys = pace.keys.map((key) => {
    last = Math.max(Math.round(key.frame), last + 1);
    return { ...key, frame: last };
  });
  return { ...pace, keys };
}

/**
 * A key more, without changing the curve: a straight or held stretch becomes two of its kind, any other two with
 * the handles that draw it. Outside the keys the key is where the rider is there.
 *
 * @returns the pace itself where there is a key already, or none at all
 */
export function insertKey(pace: Pace, frame: number): Pace {
  const { keys } = pace;
  if (keys.length === 0 || keys.some((key) => Math.abs(key.frame - frame) < APART)) return pace;
  const curve = keyedCurve(keys);
  const value = curve.value(frame);
  const i = keys.findIndex((key) => key.frame > frame);
  if (i <= 0) {
    const key: PaceKey = { frame, value, ease: 'linear', in: [0, 0], out: [0, 0] };
    // Held values before the first key and after the last stay held.
    return i === 0
      ? { ...pace, keys: [key, ...keys] }
      : { ...pace, keys: [...keys.slice(0, -1), { ...keys[keys.length - 1], ease: 'linear' }, key] };
  }
  const [before, after] = [keys[i - 1], keys[i]];
  if (before.ease === 'linear' || before.ease === 'hold') {
    const key: PaceKey = { frame, value, ease: before.ease, in: [0, 0], out: [0, 0] };
    return { ...pace, keys: [...keys.slice(0, i), key, ...keys.slice(i)] };
  }
  const { out, in: into } = curve.handles(i - 1);
  const [first, middle, second] = splitStretch(before, after, out, into, frame);
  return {
    ...pace,
    keys: [
      ...keys.slice(0, i - 1),
      { ...before, ease: 'handles', out: first.out },
      { frame, value: middle, ease: 'handles', in: first.in, out: second.out },
      { ...after, in: second.in },
      ...keys.slice(i + 1),
    ],
  };
}

type Handles = { readonly out: [number, number]; readonly in: [number, number] };

/** De Casteljau's construction at the parameter where the curve has a frame. */
function splitStretch(
  before: PaceKey,
  after: PaceKey,
  out: [number, number],
  into: [number, number],
  frame: number,
): [Handles, number, Handles] {
  const points: [number, number][] = [
    [before.frame, before.value],
    [before.frame + out[0], before.value + out[1]],
    [after.frame + into[0], after.value + into[1]],
    [after.frame, after.value],
  ];
  const mix = (a: [number, number], b: [number, number], u: number): [number, number] => [
    a[0] + (b[0] - a[0]) * u,
    a[1] + (b[1] - a[1]) * u,
  ];
  const split = (u: number) => {
    const [p, q, r] = [0, 1, 2].map((k) => mix(points[k], points[k + 1], u));
    const [v, w] = [mix(p, q, u), mix(q, r, u)];
    return { p, r, v, w, at: mix(v, w, u) };
  };
  const { p, r, v, w, at } = split(bisect((u) => split(u).at[0] >= frame, 0, 1));
  const from = (a: [number, number], b: readonly [number, number]): [number, number] => [
    b[0] - a[0],
    b[1] - a[1],
  ];
  return [{ out: from(points[0], p), in: from(at, v) }, at[1], { out: from(at, w), in: from(points[3], r) }];
}

/** A key's stretch with handles, first the curve that it had. */
export function drawByHandles(pace: Pace, i: number): Pace {
  const { keys } = pace;
  if (i + 1 >= keys.length) return withEase(pace, i, 'handles');
  const { out, in: into } = keyedCurve(keys).handles(i);
  return {
    ...pace,
    keys: keys.map((key, k) =>
      k === i ? { ...key, ease: 'handles', out } : k === i + 1 ? { ...key, in: into } : key,
    ),
  };
}

/** A key whose stretch runs another way. */
function withEase(pace: Pace, i: number, ease: Ease): Pace {
  return { ...pace, keys: pace.keys.map((key, k) => (k === i ? { ...key, ease } : key)) };
}

/** Some keys whose stretches run another way. */
export function easeKeys(pace: Pace, chosen: ReadonlySet<number>, ease: Ease): Pace {
  const put = ease === 'handles' ? drawByHandles : withEase;
  return [...chosen].reduce((before, i) => (before.keys[i] ? put(before, i, ease) : before), pace);
}

/**
 * The ride begun at another frame and place: keys and start moved together.
 *
 * @param value in the pace's unit
 */
export function startPaceAt(pace: Pace, frame: number, value: number): Pace {
  const first = pace.mode === 'keys' ? pace.keys[0] : undefined;
  const [frames, rise] = [frame - (first ?? pace.start).frame, value - (first ?? pace.start).value];
  if (first === undefined) {
    const speeds = pace.speeds.map((key) =>
      key.frame === undefined ? key : { ...key, frame: key.frame + frames },
    );
    return { ...pace, speeds, start: { frame, value } };
  }
  const keys = pace.keys.map((key) => ({ ...key, frame: key.frame + frames, value: key.value + rise }));
  return { ...pace, keys, start: { frame, value } };
}
