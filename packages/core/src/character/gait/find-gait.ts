import { vec3 } from 'gl-matrix';
import type { Axis } from '../../document/shot-facing.js';
import type { Foot, Stance } from '../../document/shot-rider.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { nodeOriginOf, toModelSpace } from '../hierarchy/model-space.js';
import { initialPose, type Clip, type NodeHierarchy } from '../hierarchy/node-hierarchy.js';
import { axisVector } from '../../motion/pose/axes.js';
import { cycleClip, sampleCycle } from './in-place.js';

/** Facts of a clip as a gait. */
export interface FoundGait {
  readonly clip: string;
  readonly seconds: number;
  /** Metres a cycle; 0 where it is no walk. */
  readonly stride: number;
  readonly feet: readonly Foot[];
  /** Whether it hardly moves, as in an idle clip. */
  readonly still: boolean;
}

const FEET = [/foot|feet|ankle|paw|hoof|boot/i, /toe|heel/i] as const;
/** Time span during which a foot is on the ground while its ankle passes over it. */
const SOLE = /toe|ball|heel/i;
const NO_FOOT = /foot(step|rest|print)|target|pole|\bik\b|_ik|end$/i;
const SAMPLES = 120;
/** A foot is low within this part of the height it is lifted to. */
const LOW = 0.25;
/** A stance goes back at the usual speed, within this part of it. */
const STEADY = 0.35;
/** A stance is at least this part of the cycle, and a stride at least this part of how high the figure is. */
const SHORTEST = 0.08;
const LEAST_STRIDE = 0.08;

/**
 * The feet of a clip by name and by motion, their stances, and the distance that a planted foot goes back in a cycle:
 * the stride. A foot is in stance where it is low and moves steadily backward in the model's space.
 */
export function findGait(hierarchy: NodeHierarchy, clip: Clip, forward: Axis, up: Axis): FoundGait {
  const ahead = axisVector(forward);
  const tracks = footTracks(hierarchy, clip, ahead, axisVector(up));
  const { seconds } = clip;
  const size = tracks.height;
  const still = tracks.moved < 0.12 * size;
  const plain = { clip: clip.name, seconds, stride: 0, feet: [], still };
  for (const names of [...FEET, null]) {
    const named = tracks.nodes.filter(
      ({ name, low }) => !NO_FOOT.test(name) && (names ? names.test(name) : low < tracks.floor + 0.12 * size),
    );
    const found = named.flatMap((track) => {
      const stance = stanceOf(names ? tracks.soleOf(track) : [track], LEAST_STRIDE * size);
      return stance ? [{ ...stance, node: track.name, depth: track.depth }] : [];
    });
    if (found.length === 0) continue;
    // Found by motion alone, a whole chain of bones may qualify: of each the one furthest out is the foot.
    const feet = names
      ? found
      : found.filter(({ node }) => !found.some((other) => tracks.isAbove(node, other.node)));
    const stride = feet.reduce((sum, foot) => sum + foot.stride, 0) / feet.length;
    return {
      ...plain,
      stride: Math.round(stride * 1e4) / 1e4,
      feet: feet.map(({ node, stances }) => ({ node, stances })),
    };
  }
  return plain;
}

interface FootTrack {
  readonly name: string;
  readonly depth: number;
  readonly low: number;
  /** By sample of the cycle, metres. */
  readonly height: Float64Array;
  readonly ahead: Float64Array;
}

function footTracks(hierarchy: NodeHierarchy, clip: Clip, ahead: Vec3, up: Vec3) {
  const cycle = cycleClip(hierarchy, clip);
  const pose = initialPose(hierarchy);
  const space = new Float64Array(16 * hierarchy.nodes.length);
  const along = hierarchy.nodes.map(() => new Float64Array(SAMPLES));
  const heights = hierarchy.nodes.map(() => new Float64Array(SAMPLES));
  const places: Vec3[][] = hierarchy.nodes.map(() => []);
  for (let i = 0; i < SAMPLES; i++) {
    sampleCycle(cycle, i / SAMPLES, pose);
    toModelSpace(hierarchy, pose.locals, space);
    hierarchy.nodes.forEach((_, n) => {
      const place = nodeOriginOf(space, n);
      places[n].push(place);
      along[n][i] = vec3.dot(place, ahead);
      heights[n][i] = vec3.dot(place, up);
    });
  }
  const lows = heights.map((list) => Math.min(...list));
  const floor = Math.min(...lows);
  const top = Math.max(...heights.map((list) => Math.max(...list)));
  const depth = (n: number): number => (n < 0 ? 0 : 1 + depth(hierarchy.nodes[n].parent));
  const parentOf = new Map(hierarchy.nodes.map(({ name, parent }) => [name, hierarchy.nodes[parent]?.name]));
  const isAbove = (node: string, other: string): boolean => {
    for (let name = parentOf.get(other); name !== undefined; name = parentOf.get(name))
      if (name === node) return true;
    return false;
  };
  const all = hierarchy.nodes.map(({ name }, n): FootTrack => ({
    name,
    depth: depth(n),
    low: lows[n],
    height: heights[n],
    ahead: along[n],
  }));
  return {
    floor,
    height: Math.max(1e-6, top - floor),
    moved: Math.max(
      0,
      ...places.map((list) => Math.max(...list.map((place) => vec3.distance(place, list[0])))),
    ),
    nodes: all,
    isAbove,
    /** A foot with the parts of its sole that hang on it. */
    soleOf: (foot: FootTrack): FootTrack[] => [
      foot,
      ...all.filter(({ name }) => SOLE.test(name) && !NO_FOOT.test(name) && isAbove(foot.name, name)),
    ],
  };
}

/**
 * Stance of a foot, and the distance that it goes back in a whole cycle at that rate; null if it has none. Of a sole,
 * the part counts that is nearest to its own lowest height at each moment: heel, ball and toe carry in turn while the
 * ankle passes over them.
 */
function stanceOf(
  sole: readonly FootTrack[],
  leastStride: number,
): { stances: Stance[]; stride: number } | null {
  const height = new Float64Array(SAMPLES);
  const rate = new Array<number>(SAMPLES);
  for (let i = 0; i < SAMPLES; i++) {
    const down = sole.reduce((best, one) =>
      one.height[i] - one.low < best.height[i] - best.low ? one : best,
    );
    height[i] = down.height[i] - down.low;
    rate[i] = ((down.ahead[(i + 1) % SAMPLES] - down.ahead[(i + SAMPLES - 1) % SAMPLES]) * SAMPLES) / 2;
  }
  // Of a shuffle, which never lifts its feet, all is low.
  const limit = Math.max(LOW * Math.max(...height), 1e-4);
  const back = rate.filter((value, i) => value < 0 && height[i] <= limit).sort((a, b) => a - b);
  if (back.length < SHORTEST * SAMPLES) return null;
  const usual = back[back.length >> 1];
  if (-usual < leastStride) return null;
  const stands = rate.map(
    (value, i) => height[i] <= limit && Math.abs(value - usual) <= STEADY * Math.abs(usual),
  );
  // One sample that falls out, as at a change of clip keys, does not part a stance.
  const filled = stands.map(
    (value, i) => value || (stands[(i + SAMPLES - 1) % SAMPLES] && stands[(i + 1) % SAMPLES]),
  );
  const runs = runsOf(filled).filter(([from, to]) => to - from >= SHORTEST * SAMPLES);
  if (runs.length === 0) return null;
  let [gone, during] = [0, 0];
  for (const [from, to] of runs) {
    // A foot plants and rolls off at the ends; its stride is measured in the middle.
    const trim = Math.floor((to - from) / 5);
    const [a, b] = [from + trim, to - trim];
    for (let i = a; i < b; i++) gone -= (rate[i % SAMPLES] + rate[(i + 1) % SAMPLES]) / 2 / SAMPLES;
    during += (b - a) / SAMPLES;
  }
  const stances = runs.map(([from, to]): Stance => ({ from: tidy(from / SAMPLES), to: tidy(to / SAMPLES) }));
  return { stances, stride: gone / during };
}

const tidy = (part: number) => Math.round(part * 1e4) / 1e4;

/** Runs of true around a circle, as first and last index; the last may lie beyond the circle's end. */
function runsOf(list: readonly boolean[]): [number, number][] {
  const count = list.length;
  const gap = list.indexOf(false);
  if (gap < 0) return [[0, count]];
  const runs: [number, number][] = [];
  for (let i = gap; i < gap + count; i++) {
    if (!list[i % count]) continue;
    let end = i;
    while (list[(end + 1) % count] && end + 1 < gap + count) end++;
    runs.push(i >= count ? [i - count, end - count] : [i, end]);
    i = end;
  }
  return runs;
}
