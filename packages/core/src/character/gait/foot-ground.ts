import { quat, vec3 } from 'gl-matrix';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';

/** How high the ground is at a place of the plan; null where there is none. */
export type HeightAt = (x: number, z: number) => number | null;

/** Level where its places differ by less than this, and even where they are off a plane by less, metres. */
const LEVEL = 1e-7;
const EVEN = 1e-5;
/** A step of the ground beneath a foot this high is no slope that a foot leans with, as a part of how far the foot reaches. */
const STEP = 0.35;
/** The steepest that a foot leans with, rise over run: 35°. */
const STEEPEST = 0.7;

/** The ground about a foot. */
export class FootGround {
  /** How high it is under the middle of the foot. */
  private height = 0;
  private x = 0;
  private z = 0;
  private slopeX = 0;
  private slopeZ = 0;
  private isEven = true;
  private readonly up: Vec3 = [0, 1, 0];

  constructor(private readonly heightAt: HeightAt) {}

  /**
   * Looks at the ground under a place of the world.
   *
   * @param reach how far the foot reaches around there, metres
   * @returns false where there is no ground
   */
  look(place: Vec3, reach: number): boolean {
    const [x, , z] = place;
    const height = this.heightAt(x, z);
    if (height === null) return false;
    [this.x, this.z, this.height] = [x, z, height];
    const at = (dx: number, dz: number) => this.heightAt(x + dx * reach, z + dz * reach) ?? height;
    const [east, west, north, south] = [at(1, 0), at(-1, 0), at(0, 1), at(0, -1)];
    // Along both axes, and what is twisted between them.
    const off = Math.max(
      Math.abs(east + west - 2 * height),
      Math.abs(north + south - 2 * height),
      Math.abs(at(0.7, 0.7) + at(-0.7, -0.7) - 2 * height),
    );
    this.isEven = off < EVEN;
    const slope = (a: number, b: number) =>
      Math.abs(a + b - 2 * height) > STEP * reach ? 0 : (a - b) / (2 * reach);
    this.slopeX = slope(east, west);
    this.slopeZ = slope(north, south);
    const steep = Math.hypot(this.slopeX, this.slopeZ);
    const held = steep > STEEPEST ? STEEPEST / steep : 1;
    vec3.normalize(this.up, [-held * this.slopeX, 1, -held * this.slopeZ]);
    return true;
  }

  get isLevel(): boolean {
    return this.isEven && Math.abs(this.slopeX) < LEVEL && Math.abs(this.slopeZ) < LEVEL;
  }

  /** How high it is at a place near by. */
  under(x: number, z: number): number {
    if (this.isEven) return this.height + this.slopeX * (x - this.x) + this.slopeZ * (z - this.z);
    return this.heightAt(x, z) ?? this.height;
  }

  /**
   * The turn that leans a foot with the ground, in the model's space.
   *
   * @param back from the world into the model
   * @param up   the model's
   * @param part 0 to 1
   */
  lean(back: Quat, up: Vec3, part: number, out: Quat): void {
    vec3.transformQuat(own, this.up, back);
    quat.rotationTo(out, up, own);
    if (part < 1) quat.slerp(out, STRAIGHT, out, part);
  }
}

const own: Vec3 = [0, 0, 0];
const STRAIGHT: Quat = [0, 0, 0, 1];
