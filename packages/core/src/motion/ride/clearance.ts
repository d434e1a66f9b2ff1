import { vec3 } from 'gl-matrix';
import type { GroundAround, GroundSurface } from '../../geometry/ground/ground-surface.js';
import type { Clearance } from '../../document/shot-clearance.js';
import { hannInside, hannIntegral } from '../../geometry/math/hann.js';
import { KeptRanges } from '../../geometry/math/kept-ranges.js';
import type { Vec3 } from '../../geometry/math/vec.js';

/** Writes a place at a frame. */
export type PositionAtFrame = (frame: number, out: Vec3) => void;

/** Scene of a clearance, beside the rider's own track. */
export interface ClearanceScene {
  readonly ground: GroundSurface | null;
  /** The riders that are kept away from, in the order of the document. */
  readonly others: readonly { readonly at: PositionAtFrame; readonly distance: number }[];
  readonly range: {
    readonly first: number;
    readonly last: number;
    readonly fps: number;
    readonly loop: boolean;
  };
}

/** Samples of needs a frame: between two the larger counts. */
const LOOKS = 4;
/** Frames beyond the range in which encounters are looked for, seconds. */
const MARGIN = 2;

/**
 * How far a rider is led away from its own way at a frame, in place: up out of reach of the ground, and past others at their
 * distance. What is needed is widened to the window (its running maximum) and averaged under a raised cosine of the same width:
 * never less than needed, without a jolt, and nothing where nothing is needed.
 *
 * @param way where it would be without
 * @returns writes the step away, metres; null where nothing is kept clear of
 */
export function compileClearance(
  { floor, ease }: Clearance,
  way: PositionAtFrame,
  { ground, others, range }: ClearanceScene,
): PositionAtFrame | null {
  const width = Math.max(1, ease * range.fps);
  const margin = Math.ceil(MARGIN * range.fps + width);
  const cycle = range.last - range.first + 1;
  const span = range.loop
    ? { first: range.first, last: range.first + cycle - 1 / LOOKS, cycle }
    : { first: range.first - margin, last: range.last + margin, cycle: Infinity };
  const steps: Step[] = [];
  const add = (direction: Vec3, needed: (frame: number) => number) =>
    steps.push({ direction, amount: eased(needed, width) });
  // A step away from one rider may lead towards another: each starts from the result of those before it, and all run
  // twice.
  const lift = () => {
    if (floor !== null && ground !== null) add([0, 1, 0], liftOver(ground, floor, ledBy(way, [...steps])));
  };
  for (let round = 0; round < (others.length > 0 ? ROUNDS : 0); round++) {
    lift();
    for (const { at, distance } of others) {
      const led = ledBy(way, [...steps]);
      for (const { direction, needed } of encounters(led, at, distance, span)) add(direction, needed);
    }
  }
  // The ground has the last word.
  lift();
  if (steps.length === 0) return null;
  return (frame, out) => {
    out[0] = out[1] = out[2] = 0;
    takeSteps(steps, frame, out);
  };
}

const ROUNDS = 2;

interface Step {
  readonly direction: Vec3;
  readonly amount: (frame: number) => number;
}

function takeSteps(steps: readonly Step[], frame: number, place: Vec3): void {
  for (const { direction, amount } of steps) {
    const far = amount(frame);
    if (far !== 0) for (let k = 0; k < 3; k++) place[k] += far * direction[k];
  }
}

/** Position of a track after its steps. */
function ledBy(way: PositionAtFrame, steps: readonly Step[]): PositionAtFrame {
  return (frame, out) => {
    way(frame, out);
    takeSteps(steps, frame, out);
  };
}

/** How far it has to be lifted at a frame to be so high above the ground under it, or over it where it is in it. */
function liftOver(ground: GroundSurface, floor: number, way: PositionAtFrame): (frame: number) => number {
  const place: Vec3 = [0, 0, 0];
  const around: GroundAround = { above: NaN, aboveFacesUp: false, floor: NaN };
  return (frame) => {
    way(frame, place);
    ground.around(place[0], place[1], place[2], around);
    const level = around.floor === around.floor ? around.floor : around.aboveFacesUp ? around.above : NaN;
    return level === level ? Math.max(0, level + floor - place[1]) : 0;
  };
}

interface Encounter {
  readonly direction: Vec3;
  readonly needed: (frame: number) => number;
}

/** Sampled frames, and the number after which a loop repeats. */
interface Span {
  readonly first: number;
  readonly last: number;
  readonly cycle: number;
}

/** The stretches of time in which two would be too near, each with the side on which they pass. */
function encounters(
  way: PositionAtFrame,
  other: PositionAtFrame,
  distance: number,
  { first, last, cycle }: Span,
): Encounter[] {
  const [own, its]: [Vec3, Vec3] = [
    [0, 0, 0],
    [0, 0, 0],
  ];
  const beside = (frame: number, out: Vec3): Vec3 => {
    way(frame, own);
    other(frame, its);
    return vec3.subtract(out, own, its) as Vec3;
  };
  const found: { from: number; to: number; closest: number; least: number }[] = [];
  const gap: Vec3 = [0, 0, 0];
  for (let i = 0; i <= (last - first) * LOOKS; i++) {
    const frame = first + i / LOOKS;
    const far = vec3.length(beside(frame, gap));
    if (far >= distance) continue;
    const before = found[found.length - 1];
    if (before && frame - before.to <= 1 / LOOKS + 1e-9) {
      before.to = frame;
      if (far < before.least) [before.least, before.closest] = [far, frame];
    } else found.push({ from: frame, to: frame, closest: frame, least: far });
  }
  const [head, tail] = [found[0], found[found.length - 1]];
  if (cycle < Infinity && found.length > 1 && head.from === first && tail.to >= last - 1e-9) {
    // An encounter that continues over the seam is one.
    found.shift();
    tail.to = head.to + cycle;
    if (head.least < tail.least) tail.closest = head.closest + cycle;
  }
  return found.map(({ from, to, closest }): Encounter => {
    const whole = to - from >= cycle - 1 / LOOKS - 1e-9;
    const direction = passingSide(beside, closest);
    return {
      direction,
      needed(frame) {
        const round = cycle < Infinity ? Math.floor((frame - from + 1 / LOOKS) / cycle) * cycle : 0;
        if (!whole && (frame - round < from - 1 / LOOKS || frame - round > to + 1 / LOOKS)) return 0;
        const r = beside(frame, gap);
        const along = vec3.dot(r, direction);
        const short = distance * distance - vec3.dot(r, r);
        return short <= 0 ? 0 : Math.max(0, Math.sqrt(along * along + short) - along);
      },
    };
  });
}

/** Square to how one moves against the other, to the side on which it passes; up where it would pass through. */
function passingSide(beside: (frame: number, out: Vec3) => Vec3, closest: number): Vec3 {
  const now = [...beside(closest, [0, 0, 0])] as Vec3;
  const before = [...beside(closest - 0.5, [0, 0, 0])] as Vec3;
  const moving = vec3.subtract([0, 0, 0], beside(closest + 0.5, [0, 0, 0]), before) as Vec3;
  const speed = vec3.length(moving);
  if (speed > 1e-9) {
    vec3.scale(moving, moving, 1 / speed);
    vec3.scaleAndAdd(now, now, moving, -vec3.dot(now, moving));
  }
  const size = vec3.length(now);
  if (size > 1e-3) return vec3.scale([0, 0, 0], now, 1 / size) as Vec3;
  // Straight through: up, as far as that is square to the motion.
  const up: Vec3 = [0, 1, 0];
  if (speed > 1e-9) vec3.scaleAndAdd(up, up, moving, -moving[1]);
  return vec3.length(up) > 1e-3 ? (vec3.normalize(up, up) as Vec3) : [1, 0, 0];
}

/**
 * A need widened to a window and averaged under a raised cosine of the same width.
 *
 * @param width frames
 */
function eased(needed: (frame: number) => number, width: number): (frame: number) => number {
  const half = width / 2;
  /** Largest need between each two whole frames, and over ranges of them. */
  const needs = new KeptRanges((k: number): number => {
    let most = 0;
    for (let i = 0; i <= LOOKS; i++) most = Math.max(most, needed(k + i / LOOKS));
    return most;
  }, Math.max);
  const widened = (k: number): number => {
    let most = 0;
    needs.over(Math.floor(k - half), Math.ceil(k + half) + 1, (need) => (most = Math.max(most, need)));
    return most;
  };
  // By the addition theorem of the cosine in what a whole frame weighs, sums that know of no middle tell what is under any window.
  const { even, wave, angle } = hannInside(width);
  const sums = new KeptRanges(
    (k: number): WavedSum => {
      const most = widened(k);
      const at = angle * (k + 0.5);
      return { most, cosine: most * Math.cos(at), sine: most * Math.sin(at) };
    },
    (a, b) => ({ most: a.most + b.most, cosine: a.cosine + b.cosine, sine: a.sine + b.sine }),
  );
  return (frame) => {
    const [from, to] = [Math.ceil(frame - half), Math.floor(frame + half)];
    const [cosine, sine] = [Math.cos(angle * frame), Math.sin(angle * frame)];
    let sum = 0;
    sums.over(from, to, (part) => {
      sum += even * part.most + wave * (cosine * part.cosine + sine * part.sine);
    });
    // The frames at its ends lie in it with a part.
    if (from - frame > -half) sum += widened(from - 1) * hannIntegral((from - frame) / width);
    if (to - frame < half) sum += widened(to) * (1 - hannIntegral((to - frame) / width));
    return sum;
  };
}

/** Sums of the needs of some frames: plain, and times cosine and sine of their positions. */
interface WavedSum {
  readonly most: number;
  readonly cosine: number;
  readonly sine: number;
}
