import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import type { TriangleMesh } from '../../geometry/solid/triangle-mesh.js';

/** Layout of a body's state: position of its middle, rotation, velocity, and angular velocity (rad/s), in the world. */
export const STATE = { position: 0, rotation: 3, velocity: 7, spin: 10, numbers: 13 } as const;

/** A rigid body about its middle of mass. */
export interface BodySpec {
  readonly shape:
    | { readonly kind: 'ball'; readonly radius: number }
    | { readonly kind: 'box'; readonly half: Vec3 }
    /** About a unit axis of its own, equally far from its middle to both ends. */
    | { readonly kind: 'cylinder'; readonly radius: number; readonly half: number; readonly axis: Vec3 }
    /** x, y, z of each corner in turn, from its middle. */
    | { readonly kind: 'hull'; readonly points: readonly number[] };
  readonly mass: number;
  readonly friction: number;
  readonly bounce: number;
  /** Damping of its velocity and of its spin, per second. */
  readonly damping: number;
  readonly spinDamping: number;
}

/** A box that is led about and gives way to nothing; the middle of the box is where it is led. */
export interface KinematicSpec {
  readonly half: Vec3;
}

/** All that is in a world; where and how fast everything is at first. */
export interface WorldSpec {
  readonly ground: TriangleMesh | null;
  /** How high the level ground is, metres; null where there is none. */
  readonly floor: number | null;
  readonly bodies: readonly (BodySpec & { readonly state: Float64Array })[];
  readonly led: readonly (KinematicSpec & { readonly position: Vec3; readonly rotation: Quat })[];
  /** Seconds. */
  readonly step: number;
}

/**
 * A world that is stepped forward, equally on every machine. Bodies and kinematic boxes are identified by their index
 * in the {@link WorldSpec}.
 */
export interface PhysicsWorld {
  /** Pushes a body through its middle over the next step, newtons; and turns it, newton metres. */
  push(body: number, force: Vec3, torque: Vec3): void;
  /** Leads a box there by the next step. */
  lead(led: number, position: Vec3, rotation: Quat): void;
  /** Moves a body at once. */
  set(body: number, state: Float64Array): void;
  step(): void;
  /** Writes {@link STATE}.numbers into `out[at …]`. */
  body(body: number, out: Float64Array, at: number): void;
  /** The same of where it is and how fast it goes alone, for what asks often. */
  way(body: number, out: Float64Array): void;
  /** All of it, to be gone back to. */
  save(): Uint8Array;
  load(saved: Uint8Array): void;
  close(): void;
}

/** Rigid bodies. The library must be loaded first, so it is an argument of every evaluation. */
export interface Physics {
  open(spec: WorldSpec): PhysicsWorld;
}
