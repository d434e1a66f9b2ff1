import { vec3 } from 'gl-matrix';
import type { Anchor, Offset } from '../../document/shot-attachment.js';
import type { Chassis } from '../../document/shot-rider.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import type { CompiledPath, FrameReference } from '../../geometry/path/compiled-path.js';
import { KeptNumbers } from '../../geometry/math/kept-numbers.js';
import { guardedNewton, type ValueAndSlope } from '../../geometry/math/search.js';
import { frameAlong, positionAlong, directionAlong } from './beyond-ends.js';
import { hasWheelbase } from './chassis.js';
import { compileTrail, type Pin } from './trail.js';

/**
 * Placement of a rider on the curve: its anchor, and the distances of its couplings. Lengths are metres along its
 * travel, behind is negative.
 */
export interface AxlePlacement {
  /** Writes position, left, up and forward of the rider's origin where its anchor is at distance s. */
  frame(s: number, out: Float64Array): void;
  /** Writes a place `around` metres from that origin, quicker to find than the frame. */
  about(s: number, out: Vec3): void;
  readonly around: number;
  /** From the anchor to the front coupling. */
  readonly reach: number;
  /** From the anchor to the rear coupling, where that is as far along the curve everywhere; null where it is not. */
  readonly rear: number | null;
  /** Distance of the rear coupling along the curve, and its derivative by s. */
  tail(s: number): { distance: number; rate: number };
}

/** How finely a place with a given chord is looked for, metres. */
const EXACT = 1e-10;
/** Far from the origin no more finely than numbers of that size tell places apart: a few of their steps. */
const ROUNDING = 2 ** -49;

/**
 * @param chassis where the axles and couplings are, scaled; null stands on its origin with no length
 * @param travelSign −1 where the rider is turned round and so travels tail first
 * @param joints distances at which its way may bend all at once
 * @param pin   where its front coupling is held, for one that is towed; without it its front axle is on the curve
 */
export function compileAxlePlacement(
  path: CompiledPath,
  reference: FrameReference,
  anchor: Anchor,
  chassis: Chassis | null,
  travelSign: 1 | -1,
  pin: Pin | null = null,
  joints: readonly number[] = path.joints,
): AxlePlacement {
  if (chassis !== null && anchor === 'frontAxle') {
    // A towed unit needs no front axle.
    if (hasWheelbase(chassis) || (pin !== null && chassis.frontCoupling > chassis.rearAxle))
      return trailing(path, chassis, travelSign, pin, joints);
  }
  if (chassis !== null && anchor === 'bothAxles' && hasWheelbase(chassis))
    return onBothAxles(path, reference, chassis, travelSign);
  // A turned rider has its origin as far ahead of the axle on the curve as it was behind.
  const held = chassis !== null && anchor === 'rearAxle' ? chassis.rearAxle : 0;
  const rear = travelSign * ((chassis?.rearCoupling ?? 0) - held);
  return {
    frame(s, out) {
      frameAlong(path, s, reference, out);
      if (held !== 0) for (let k = 0; k < 3; k++) out[k] -= travelSign * held * out[9 + k];
    },
    about: (s, out) => positionAlong(path, s, out),
    around: Math.abs(held),
    reach: travelSign * ((chassis?.frontCoupling ?? 0) - held),
    rear,
    tail: (s) => ({ distance: s + rear, rate: 1 }),
  };
}

/**
 * The front on the curve, or held by what tows it, and the rear axle following as a road vehicle's does: it cuts
 * the bend, and never slides sideways. Up and down it lies on the path, or on the ground it is set on.
 */
function trailing(
  path: CompiledPath,
  chassis: Chassis,
  travelSign: 1 | -1,
  pin: Pin | null,
  joints: readonly number[],
): AxlePlacement {
  const front = pin ? chassis.frontCoupling : chassis.frontAxle;
  const held = pin ?? ((s: number, out: Vec3) => positionAlong(path, s, out));
  const bar = front - chassis.rearAxle;
  const rear = travelSign * (chassis.rearCoupling - front);
  const { length, closed } = path;
  const heading = compileTrail(held, { length, closed, bar, travelSign, joints });
  const at: Vec3 = [0, 0, 0];
  const behind: Vec3 = [0, 0, 0];
  return {
    frame(s, out) {
      held(s, at);
      positionAlong(path, s - travelSign * bar, behind);
      const rise = Math.max(-0.99, Math.min(0.99, (at[1] - behind[1]) / bar));
      const cos = Math.sqrt(1 - rise * rise);
      const angle = heading(s);
      const x = Math.sin(angle);
      const z = Math.cos(angle);
      // `heading` is that of the rider's own front; the frame is that of its way. Left is (z, 0, −x).
      const ownX = cos * x;
      const ownZ = cos * z;
      out[0] = at[0] - front * ownX;
      out[1] = at[1] - front * rise;
      out[2] = at[2] - front * ownZ;
      out[3] = travelSign * z;
      out[4] = 0;
      out[5] = -travelSign * x;
      out[6] = -rise * x;
      out[7] = ownZ * z + ownX * x;
      out[8] = -rise * z;
      out[9] = travelSign * ownX;
      out[10] = travelSign * rise;
      out[11] = travelSign * ownZ;
    },
    about: held,
    around: Math.abs(front),
    reach: travelSign * (chassis.frontCoupling - front),
    rear,
    tail: (s) => ({ distance: s + rear, rate: 1 }),
  };
}

/** Both axles on the curve, as a vehicle on rails: the front one at s, the rear one a wheelbase away in a straight line. */
function onBothAxles(
  path: CompiledPath,
  reference: FrameReference,
  chassis: Chassis,
  travelSign: 1 | -1,
): AxlePlacement {
  const wheelbase = chassis.frontAxle - chassis.rearAxle;
  const front = new Float64Array(12);
  const rear = new Float64Array(12);
  const along: Vec3 = [0, 0, 0];
  const up: Vec3 = [0, 0, 0];
  const left: Vec3 = [0, 0, 0];
  // Asked for by its own pose, and again by what hangs behind it.
  const kept = new KeptNumbers(1);
  const rearAt = (s: number): number => {
    const known = kept.find(s);
    if (known >= 0) return kept.values[known];
    const behind = secondAxle(path, s, wheelbase, travelSign);
    const at = kept.put(s);
    kept.values[at] = behind;
    return behind;
  };
  return {
    frame(s, out) {
      const behind = rearAt(s);
      frameAlong(path, s, reference, front);
      frameAlong(path, behind, reference, rear);
      for (let k = 0; k < 3; k++) {
        along[k] = travelSign * (front[k] - rear[k]);
        up[k] = front[6 + k] + rear[6 + k];
      }
      vec3.normalize(along, along);
      vec3.normalize(left, vec3.cross(left, up, along));
      vec3.cross(up, along, left);
      for (let k = 0; k < 3; k++) {
        out[k] = front[k] - travelSign * chassis.frontAxle * along[k];
        out[3 + k] = left[k];
        out[6 + k] = up[k];
        out[9 + k] = along[k];
      }
    },
    about: (s, out) => positionAlong(path, s, out),
    around: Math.abs(chassis.frontAxle),
    reach: travelSign * (chassis.frontCoupling - chassis.frontAxle),
    rear: null,
    tail(s) {
      const behind = rearAt(s);
      frameAlong(path, s, reference, front);
      frameAlong(path, behind, reference, rear);
      let ahead = 0;
      let back = 0;
      for (let k = 0; k < 3; k++) {
        ahead += (front[k] - rear[k]) * front[9 + k];
        back += (front[k] - rear[k]) * rear[9 + k];
      }
      // The chord keeps its length, so both its ends move along it alike.
      const rate = Math.abs(back) > 1e-9 ? ahead / back : 1;
      return { distance: behind + travelSign * (chassis.rearCoupling - chassis.rearAxle), rate };
    },
  };
}

const here = new Float64Array(12);
const there = new Float64Array(12);

/**
 * The nearest distance behind s (ahead of it where `sense` is −1) whose place is a chord away, by
 * safeguarded Newton steps. On a path too small for the chord it is a chord away along the curve.
 */
function secondAxle(path: CompiledPath, s: number, chord: number, travelSign: 1 | -1): number {
  directionAlong(path, s, here);
  const exact = EXACT + ROUNDING * (Math.abs(s) + Math.abs(here[0]) + Math.abs(here[1]) + Math.abs(here[2]));
  /** By how much too far the place is that is x metres off, and how fast that changes. */
  const excess: ValueAndSlope = (x, out) => {
    directionAlong(path, s - travelSign * x, there);
    let square = 0;
    let slope = 0;
    for (let k = 0; k < 3; k++) {
      const d = here[k] - there[k];
      square += d * d;
      slope += d * there[9 + k];
    }
    const size = Math.sqrt(square);
    out[0] = size - chord;
    out[1] = size > 0 ? (travelSign * slope) / size : 1;
  };
  // A chord is never longer than its arc.
  let near = chord;
  let far = chord;
  let start = chord;
  const most = path.closed ? Math.min(path.length, 40 * chord) : 40 * chord;
  for (excess(far, found); found[0] < -exact; excess(far, found)) {
    near = far;
    start = far - found[0] / found[1];
    far += chord / 8;
    if (far > most) return s - travelSign * chord;
  }
  // Step from the last distance that was too near, unless that is too far.
  const begin = start > near && start < far ? start : far;
  return s - travelSign * guardedNewton(excess, near, far, begin, exact, exact);
}

const found: [number, number] = [0, 0];

/** −1 where an offset turns a rider so that it travels tail first. */
export function travelSignOf({ yaw }: Pick<Offset, 'yaw'>): 1 | -1 {
  return Math.cos((yaw * Math.PI) / 180) < -1e-9 ? -1 : 1;
}
