import type { CheckLimits } from '../document/shot-checks.js';
import type { Rider } from '../document/shot-rider.js';
import { sampleRider } from '../shot/bake/sample-shot.js';
import { frameCount } from '../document/frames.js';
import { isMoving, type EvaluatedShot } from '../shot/evaluate/evaluate-shot.js';
import { hierarchyOfRider } from '../shot/evaluate/scene-assets.js';
import type { CompiledPath } from '../geometry/path/compiled-path.js';
import type { Vec3 } from '../geometry/math/vec.js';
import { POSE } from '../motion/pose/pose.js';
import type { CheckScene } from './check-scene.js';
import { RiderBody } from './rider-body.js';

/** Rider as the checks see it: its poses at every frame, and its shape. */
export class RiderLook {
  readonly first: number;
  readonly fps: number;
  readonly count: number;
  readonly limits: CheckLimits;
  /** Whether its place can change. */
  readonly moves: boolean;
  /** The curve it rides; null where there is none. */
  readonly curve: CompiledPath | null;
  private sampled: Float64Array | null;
  private made: RiderBody | null | undefined;

  /**
   * @param poses its poses by frame, where they are known already
   */
  constructor(
    readonly evaluated: EvaluatedShot,
    readonly rider: Rider,
    readonly index: number,
    readonly scene: CheckScene,
    poses: Float64Array | null = null,
  ) {
    const { shot } = evaluated;
    this.first = shot.range.first;
    this.fps = shot.fps;
    this.count = frameCount(shot);
    this.limits = shot.checks.limits;
    this.moves = isMoving(shot, rider);
    // A frozen rider plays its bake, whatever becomes of its path.
    this.curve = rider.frozen === null ? evaluated.ridden(rider) : null;
    this.sampled = poses;
  }

  /** POSE.size numbers a frame. */
  get poses(): Float64Array {
    // A rider at rest is the same at every frame.
    this.sampled ??= this.moves
      ? sampleRider(this.evaluated.poses[this.index], this.first, this.count, 1)
      : sampleRider(this.evaluated.poses[this.index], this.first, 1, 1);
    return this.sampled;
  }

  /** Index in {@link poses} of its pose at the i-th frame. */
  at(i: number): number {
    return this.moves ? i * POSE.size : 0;
  }

  speed(i: number): number {
    return this.poses[this.at(i) + POSE.speed];
  }

  distance(i: number): number {
    return this.poses[this.at(i) + POSE.distance];
  }

  /** The distance along its path at a frame of the shot; null where it rides none. */
  distanceAt(frame: number): number | null {
    return this.curve === null ? null : this.distance(frame - this.first);
  }

  /** How far it goes within a frame at most, and between which places it stays: metres. */
  get extent(): { readonly step: number; readonly low: Vec3; readonly high: Vec3 } {
    if (this.measured) return this.measured;
    const { poses } = this;
    const low: Vec3 = [Infinity, Infinity, Infinity];
    const high: Vec3 = [-Infinity, -Infinity, -Infinity];
    let square = 0;
    for (let at = 0; at < poses.length; at += POSE.size) {
      let step = 0;
      for (let k = 0; k < 3; k++) {
        low[k] = Math.min(low[k], poses[at + k]);
        high[k] = Math.max(high[k], poses[at + k]);
        if (at > 0) step += (poses[at + k] - poses[at + k - POSE.size]) ** 2;
      }
      square = Math.max(square, step);
    }
    return (this.measured = { step: Math.sqrt(square), low, high });
  }

  private measured: { readonly step: number; readonly low: Vec3; readonly high: Vec3 } | null = null;

  /** Shape of its model; null if it has none or it is not known. */
  get body(): RiderBody | null {
    if (this.made === undefined) {
      const { evaluated, rider, scene } = this;
      const hierarchy = hierarchyOfRider(evaluated.assets, rider);
      const mesh = scene.models.get(rider.model ?? '')?.mesh ?? [];
      this.made = hierarchy && mesh.length > 0 ? new RiderBody(this, hierarchy, mesh) : null;
    }
    return this.made;
  }
}

/** Whether two that stay within boxes are never so near to each other. */
export function staysApart(a: RiderLook['extent'], b: RiderLook['extent'], near: number): boolean {
  for (let k = 0; k < 3; k++) if (a.low[k] - b.high[k] > near || b.low[k] - a.high[k] > near) return true;
  return false;
}
