import type { Vec3 } from '../math/vec.js';
import { Amount, Flag, Id, OneOf, Part, PartOrNull, rule } from './constraints.js';
import { LIMITS } from './limits.js';
import { Pace } from './shot-pace.js';

export const AXES = ['+x', '-x', '+y', '-y', '+z', '-z'] as const;
export type Axis = (typeof AXES)[number];

/** What is aimed at: a rider, or a point in the world. Exactly one of the two. */
export class AimTarget {
  @rule('the id of a rider, and no point beside it', (v) => v === undefined || typeof v === 'string')
  rider?: string;
  @rule(
    'three numbers [x, y, z], and no rider beside it',
    (v) => v === undefined || (Array.isArray(v) && v.length === 3 && v.every(Number.isFinite)),
  )
  point?: Vec3;
}

/** Which way the rider looks: the model's own axes, and what they are turned to. */
export class Facing {
  @OneOf('path', 'keep', 'aim') mode: 'path' | 'keep' | 'aim' = 'path';
  @OneOf(...AXES) forward: Axis = '+z';
  @OneOf(...AXES) up: Axis = '+y';
  @OneOf('world', 'path', 'ground') reference: 'world' | 'path' | 'ground' = 'world';
  @PartOrNull(() => AimTarget) target: AimTarget | null = null;
  @Amount('metres ahead on the path') ahead = 0;
}

/** Leaning into bends. */
export class Bank {
  @OneOf('none', 'amount', 'physical') mode: 'none' | 'amount' | 'physical' = 'none';
  /** Degrees at a curvature of 0.1 /m, or a factor of the physical angle. */
  @Amount('degrees, or a factor') amount = 1;
  @Amount('degrees', 0, 180) limit = 45;
  @Amount('metres', 0, 1e6) window = 1;
}

/** Where the rider sits beside its place on the path, in the frame of its travel. */
export class Offset {
  @Amount('metres') along = 0;
  /** To the left. */
  @Amount('metres') side = 0;
  @Amount('metres') rise = 0;
  @Amount('degrees') yaw = 0;
  @Amount('degrees') pitch = 0;
  @Amount('degrees') roll = 0;
}

/** How the rider holds to the ground under its path. */
export class GroundContact {
  @OneOf('none', 'stick') mode: 'none' | 'stick' = 'none';
  @Amount('metres', 0, LIMITS.coordinate) up = 1.5;
  @Amount('metres', 0, LIMITS.coordinate) down = 1.5;
  @Amount('metres') rise = 0;
  @Flag() tilt = true;
}

export const ANCHORS = ['origin', 'frontAxle', 'rearAxle', 'bothAxles'] as const;
export type Anchor = (typeof ANCHORS)[number];

/** A rider's hold on a path: place, facing, lean and pace. */
export class Hitch {
  @Id() path!: string;
  @OneOf(...ANCHORS) anchor: Anchor = 'origin';
  @Part(() => Facing) facing: Facing = new Facing();
  @Part(() => Bank) bank: Bank = new Bank();
  @Part(() => Offset) offset: Offset = new Offset();
  @Part(() => Pace) pace: Pace = new Pace();
  @Part(() => GroundContact) ground: GroundContact = new GroundContact();
}
