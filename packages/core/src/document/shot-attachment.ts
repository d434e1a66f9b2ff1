import type { Vec3 } from './vector.js';
import {
  Amount,
  Flag,
  Id,
  OneOf,
  Nested,
  NestedOrNull,
  NestedList,
  Point,
  rule,
  numbers,
} from './constraints.js';
import { LIMITS } from './limits.js';
import { Facing } from './shot-facing.js';
import { InfluenceKey, type KeyEase } from './shot-keys.js';
import { Pace, Take } from './shot-pace.js';

/** Leaning into bends. */
export class Bank {
  @OneOf('none', 'amount', 'physical') mode: 'none' | 'amount' | 'physical' = 'none';
  /** Degrees at a curvature of 0.1 /m, or a factor of the physical angle. */
  @Amount('degrees, or a factor') amount = 1;
  @Amount('degrees', 0, 180) limit = 45;
  @Amount('metres', 0, 1e6) window = 1;
}

/** Offset of the rider from its point on the path, in the frame of its travel. */
export class Offset {
  @Amount('metres') along = 0;
  /** To the left. */
  @Amount('metres') side = 0;
  @Amount('metres') rise = 0;
  @Amount('degrees') yaw = 0;
  @Amount('degrees') pitch = 0;
  @Amount('degrees') roll = 0;
}

/** Of one value: frames and value from its key. */
export interface OffsetHandles {
  readonly in?: [number, number];
  readonly out?: [number, number];
}

const isPair = (v: unknown) =>
  v === undefined ||
  (Array.isArray(v) && v.length === 2 && v.every((n) => Number.isFinite(n) && Math.abs(n as number) <= 1e9));

function areHandles(v: unknown): boolean {
  if (v === undefined) return true;
  if (typeof v !== 'object' || v === null) return false;
  return Object.entries(v).every(([part, handles]) => {
    const known = PARTS.includes(part as keyof Offset) && typeof handles === 'object' && handles !== null;
    return (
      known &&
      Object.entries(handles as object).every(
        ([side, pair]) => (side === 'in' || side === 'out') && isPair(pair),
      )
    );
  });
}

const PARTS: readonly (keyof Offset)[] = ['along', 'side', 'rise', 'yaw', 'pitch', 'roll'];

/** An offset from a frame on. */
export class OffsetKey extends Offset {
  @Amount('frame') frame!: number;
  @OneOf('linear', 'hold', 'smooth') ease: KeyEase = 'smooth';
  /** By value the handles that draw it, as those of a pace; its stretch is drawn so where there is an `out`, whatever its ease. */
  @rule('handles by value, { "side": { "out": [frames, value] } }, or left out', areHandles, {
    type: 'object',
    propertyNames: { enum: PARTS },
    additionalProperties: {
      type: 'object',
      properties: { in: numbers(2, 1e9), out: numbers(2, 1e9) },
      additionalProperties: false,
    },
  })
  handles?: Partial<Record<keyof Offset, OffsetHandles>>;
}

/** Hangs a rider behind another on the same path, coupling to coupling. */
export class CoupledTo {
  @Id() rider!: string;
  /** Between the other's rear coupling and its own front one, along the curve. */
  @Amount('metres', 0, 1e6) gap = 0;
}

/** Takes a rider's pace from another's: delayed by frames, and faster by a factor. */
export class PacedBy {
  @Id() rider!: string;
  @Amount('frames') delay = 0;
  @Amount('times the speed', 1e-3, 1e3) rate = 1;
}

/** Moves a whole ride: made larger about the world's origin, turned to the left about up, then moved. */
export class RideTransform {
  @Point() translation: Vec3 = [0, 0, 0];
  @Amount('degrees') turn = 0;
  @Amount('times the size', 1e-3, 1e3) size = 1;
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
export class Attachment {
  @Id() path!: string;
  @OneOf(...ANCHORS) anchor: Anchor = 'origin';
  @Nested(() => Facing) facing: Facing = new Facing();
  @Nested(() => Bank) bank: Bank = new Bank();
  @Nested(() => Offset) offset: Offset = new Offset();
  /** They hold instead of `offset` where there are any. */
  @NestedList(() => OffsetKey, LIMITS.keysPerPace) offsetKeys: OffsetKey[] = [];
  @Nested(() => Pace) pace: Pace = new Pace();
  @Nested(() => GroundContact) ground: GroundContact = new GroundContact();
  /** From where the rider rests (0) to its ride (1); 1 where there are no keys. */
  @NestedList(() => InfluenceKey, LIMITS.keysPerPace) influence: InfluenceKey[] = [];
  /** While there is one, `pace` waits. */
  @NestedOrNull(() => CoupledTo) coupledTo: CoupledTo | null = null;
  /** While there is one, `pace` waits. */
  @NestedOrNull(() => PacedBy) pacedBy: PacedBy | null = null;
  @NestedOrNull(() => RideTransform) rideTransform: RideTransform | null = null;
  /** Timings to compare with; they do not play. */
  @NestedList(() => Take, LIMITS.takesPerRider) takes: Take[] = [];
}
