import { quat, vec3 } from 'gl-matrix';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { POSE, type PoseAt } from '../../motion/pose/pose.js';

/** Pose of a walker at one frame, and the transforms from its model to the world and back. */
export class WalkerPlace {
  /** Which way it is turned, radians about up. */
  turn = 0;
  private frame = NaN;
  private readonly now = new Float64Array(POSE.size);
  private readonly rotation: Quat = [0, 0, 0, 1];
  private readonly back: Quat = [0, 0, 0, 1];
  private readonly front: Vec3 = [0, 0, 0];

  /**
   * @param ahead which way the model looks, in its own space
   * @param scale the model's size in the world, by its own axes
   */
  constructor(
    private readonly pose: PoseAt,
    private readonly ahead: Vec3,
    private readonly scale: Vec3,
  ) {}

  /** How high its origin is, metres. */
  get height(): number {
    return this.now[1];
  }

  /** From the world into the model, sizes left out. */
  get toModelTurn(): Quat {
    return this.back;
  }

  /** Brings a difference of two places of the model into the world. */
  offsetToWorld(offset: Vec3, out: Vec3): void {
    vec3.multiply(out, offset, this.scale);
    vec3.transformQuat(out, out, this.rotation);
  }

  goTo(frame: number): void {
    if (frame === this.frame) return;
    this.frame = frame;
    const { now, rotation, front } = this;
    this.pose(frame, now, 0);
    for (let k = 0; k < 4; k++) rotation[k] = now[POSE.rotation + k];
    quat.conjugate(this.back, rotation);
    vec3.transformQuat(front, this.ahead, rotation);
    this.turn = Math.atan2(front[0], front[2]);
  }

  /** Brings a place of the model into the world. */
  toWorld(place: Vec3): void {
    vec3.multiply(place, place, this.scale);
    vec3.transformQuat(place, place, this.rotation);
    for (let k = 0; k < 3; k++) place[k] += this.now[k];
  }

  /** Brings a place of the world into the model. */
  toModel(place: Vec3): void {
    for (let k = 0; k < 3; k++) place[k] -= this.now[k];
    vec3.transformQuat(place, place, this.back);
    vec3.divide(place, place, this.scale);
  }
}
