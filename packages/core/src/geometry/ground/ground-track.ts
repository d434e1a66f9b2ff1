import { modulo } from '../math/angle.js';
import { KeptNumbers } from '../math/kept-numbers.js';
import type { GroundSurface } from './ground-surface.js';
import { StraightWindow } from './straight-window.js';

/** How far below and above its path a rider looks for ground, metres. */
export interface Band {
  readonly up: number;
  readonly down: number;
}

/**
 * Writes a place of the plan where a wheel or foot comes along: x, the height at which ground is expected, z.
 * By distance along the path, or by frame.
 */
export type PositionAlong = (at: number, out: Float64Array) => void;

/** Whether the track can have no ground at a distance, without computing its position. */
export type IsNowhere = (at: number) => boolean;

/** The height of the ground under something that comes along, smoothed over its own size. */
export interface GroundTrack {
  height(at: number): number;
  /** Whether no ground was found there: then the last good height holds. */
  missing(at: number): boolean;
}

/** Samples under a wheel: four a radius. */
const PER_RADIUS = 4;
/** On long paths they are further apart: a wheel of 0.4 m is looked after in full over 13 km. */
const MOST_NODES = 1 << 17;
/** So far back a last good height is looked for: radii of the wheel along its way, or frames. */
const RADII_BACK = 1_000;
const FRAMES_BACK = 48;
/** Frames whose ground is kept. */
const MOST_PROFILES = 4_000;

/** Sampling and smoothing of the ground along a path for a wheel: its nodes and its window. */
export interface TrackNodes {
  readonly count: number;
  /** Metres. */
  readonly step: number;
  /** So many nodes back a last good height is looked for. */
  readonly back: number;
  readonly window: StraightWindow;
  /** Samplers of a node by wheel; all run together, since the rider's position costs more than the ground. */
  readonly looks: ((node: number) => void)[];
}

/** @param length metres, of the path */
export function trackNodes(radius: number, length: number): TrackNodes {
  const count = Math.max(2, Math.min(MOST_NODES, Math.ceil((length * PER_RADIUS) / radius)));
  const step = length / count;
  // A path shorter than the wheel has a few nodes, and no more are sampled.
  const reach = Math.min(Math.max(radius, 2 * step), 4 * PER_RADIUS * step);
  const back = Math.ceil((RADII_BACK * radius) / step);
  const most = RADII_BACK * PER_RADIUS;
  return { count, step, back: Math.min(back, most), window: new StraightWindow(reach, step), looks: [] };
}

/**
 * A track by distance along a path. The ground is asked for at even distances, once each and only where something
 * comes by, and smoothed by a straight line fitted under a window as wide as the wheel: on any plane
 * the height is exact, and a step becomes a slope as long as the wheel.
 *
 * @param nodes     shared by wheels of one size
 * @param isNowhere asked once there was no ground
 */
export function trackByDistance(
  ground: GroundSurface,
  { up, down }: Band,
  placeAt: PositionAlong,
  { count, step, back: farthest, window, looks }: TrackNodes,
  closed: boolean,
  isNowhere: IsNowhere = () => false,
): GroundTrack {
  const heights = new Float64Array(count + 1).fill(NaN);
  /** Points without ground, so that they are not looked up again. */
  const holes = new Uint8Array(count + 1);
  /** By hole how many nodes back the last good one is, more than are looked at where there is none; 0 where that is not known. */
  const gaps = new Uint16Array(count + 1);
  /** Of places beyond the ends of an open path, where there is no end to what may be asked; NaN over a hole. */
  const beyond = new KeptNumbers(1);
  const place = new Float64Array(3);
  const index = (k: number) => (closed ? modulo(k, count) : k);
  const isBeyond = (k: number) => k < 0 || k > count;
  const isKnown = (k: number) =>
    isBeyond(k) ? beyond.find(k) >= 0 : holes[k] === 1 || heights[k] === heights[k];
  const heightUnder = (at: number): number | null => {
    placeAt(at, place);
    return ground.height(place[0], place[2], place[1], up, down);
  };
  /** Whether there was none when it was last looked for. */
  let empty = false;
  looks.push((k) => {
    if (isKnown(k)) return;
    const found = empty && isNowhere(k * step) ? null : heightUnder(k * step);
    empty = found === null;
    if (isBeyond(k)) {
      const at = beyond.put(k);
      beyond.values[at] = found ?? NaN;
    } else if (found === null) holes[k] = 1;
    else heights[k] = found;
  });
  const lookAt = (k: number) => {
    if (!isKnown(k)) for (const look of looks) look(k);
  };
  const heightBeyond = (k: number): number | null => {
    lookAt(k);
    const found = beyond.values[beyond.find(k)];
    return found === found ? found : null;
  };
  const node = (at: number): number => {
    const k = at >= 0 && at < count ? at : index(at);
    // Without ground out there it keeps what the end has.
    if (isBeyond(k)) return heightBeyond(k) ?? node(k < 0 ? 0 : count);
    const cached = heights[k];
    if (cached === cached) return cached;
    const found = ownHeight(k) ?? lastGood(k);
    heights[k] = found;
    return found;
  };
  /** The height of the ground itself; null over a hole. */
  const ownHeight = (k: number): number | null => {
    lookAt(k);
    return holes[k] === 1 ? null : heights[k];
  };
  const lastGood = (k: number): number => {
    const most = Math.min(farthest, closed ? count : k);
    let back = 1;
    // A known hole gives the distance back from there; only unknown nodes are sampled.
    while (back <= most && ownHeight(index(k - back)) === null) back += gaps[index(k - back)] || 1;
    gaps[k] = Math.min(back, farthest + 1);
    if (back <= most) return heights[index(k - back)];
    placeAt(k * step, place);
    return place[1];
  };
  return {
    height(s) {
      window.moveTo(s);
      const { first, parts } = window;
      const ends = first + window.count;
      let sum = 0;
      if (first >= 0 && ends <= count) {
        for (let k = first; k < ends; k++) {
          const known = heights[k];
          sum += parts[k - first] * (known === known ? known : node(k));
        }
      } else for (let k = first; k < ends; k++) sum += parts[k - first] * node(k);
      return sum;
    },
    missing(s) {
      const k = index(Math.round(s / step));
      if (isBeyond(k)) return heightBeyond(k) === null;
      node(k);
      return holes[k] === 1;
    },
  };
}

/**
 * A track by frame, for what does not keep to one line beside its path.
 *
 * @param placeAt    where it is at a frame
 * @param directionAt writes which way it goes there, level, as x and z in `out[0]` and `out[2]`
 * @param isNowhere   asked once there was no ground
 */
export function trackByFrame(
  ground: GroundSurface,
  { up, down }: Band,
  placeAt: PositionAlong,
  directionAt: PositionAlong,
  radius: number,
  isNowhere: IsNowhere = () => false,
): GroundTrack {
  const step = radius / PER_RADIUS;
  const place = new Float64Array(3);
  const way = new Float64Array(3);
  const profiles = new Map<number, Float64Array>();
  /** By whole frame and node: how many frames back from there the last good one is, where it was looked for; else 0. */
  const gaps = new Map<number, Uint8Array>();
  const window = new StraightWindow(radius, step);
  window.moveTo(0);
  /** Whether there was none at all when it was last looked for. */
  let empty = false;
  /** By node along its way what is under it at a frame, metres; NaN over a hole. */
  const profileAt = (frame: number): Float64Array => {
    const cached = profiles.get(frame);
    if (cached !== undefined) return cached;
    const found = new Float64Array(2 * PER_RADIUS + 1).fill(NaN);
    if (!empty || !isNowhere(frame)) {
      placeAt(frame, place);
      directionAt(frame, way);
      for (let k = -PER_RADIUS; k <= PER_RADIUS; k++) {
        const [x, z] = [place[0] + k * step * way[0], place[2] + k * step * way[2]];
        found[k + PER_RADIUS] = ground.height(x, z, place[1], up, down) ?? NaN;
      }
    }
    empty = found.every(Number.isNaN);
    if (profiles.size >= MOST_PROFILES) profiles.clear();
    profiles.set(frame, found);
    return found;
  };
  const gapsAt = (frame: number): Uint8Array => {
    let known = gaps.get(frame);
    if (known === undefined) {
      if (gaps.size >= MOST_PROFILES) gaps.clear();
      gaps.set(frame, (known = new Uint8Array(2 * PER_RADIUS + 1)));
    }
    return known;
  };
  /** Ground under a node at the last whole frame before one that had ground, looked up at once. */
  const lastGood = (frame: number, node: number): number => {
    const last = Math.ceil(frame) - 1;
    let found = NaN;
    let back = 0;
    while (back < FRAMES_BACK && (found = profileAt(last - back)[node]) !== found)
      back += gapsAt(last - back)[node] || 1;
    if (back > 0) gapsAt(last)[node] = Math.min(back, FRAMES_BACK);
    if (found === found) return found;
    placeAt(frame, place);
    return place[1];
  };
  return {
    height: (frame) => {
      const now = profileAt(frame);
      const { first, count, parts } = window;
      let sum = 0;
      for (let i = 0; i < count; i++) {
        const node = first + i + PER_RADIUS;
        const known = now[node];
        sum += parts[i] * (known === known ? known : lastGood(frame, node));
      }
      return sum;
    },
    missing: (frame) => Number.isNaN(profileAt(frame)[PER_RADIUS]),
  };
}
