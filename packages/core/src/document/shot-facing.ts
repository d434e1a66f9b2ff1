import type { Vec3 } from './vector.js';
import { Amount, OneOf, Nested, NestedOrNull, NestedList, rule, numbers } from './constraints.js';
import { InfluenceKey } from './shot-keys.js';
import { LIMITS } from './limits.js';

export const AXES = ['+x', '-x', '+y', '-y', '+z', '-z'] as const;
export type Axis = (typeof AXES)[number];

const isPlace = (v: unknown) => Array.isArray(v) && v.length === 3 && v.every(Number.isFinite);

/** Target of an aim: a rider or a part of one, or a point in the world. Exactly one of `rider` and `point`. */
export class AimTarget {
  @rule('the id of a rider, and no point beside it', (v) => v === undefined || typeof v === 'string', {
    type: 'string',
  })
  rider?: string;
  /** The name of the part of the rider's model that is meant; its origin where there is none. */
  @rule(
    'the name of a node of the rider’s model',
    (v) => v === undefined || (typeof v === 'string' && v.length > 0 && v.length <= LIMITS.textLength),
    { type: 'string', minLength: 1, maxLength: LIMITS.textLength },
  )
  node?: string;
  /** Position of that part in the rider’s own space, metres before its scale. */
  @rule('three numbers [x, y, z] in the rider’s own space', (v) => v === undefined || isPlace(v), numbers(3))
  at?: Vec3;
  @rule('three numbers [x, y, z], and no rider beside it', (v) => v === undefined || isPlace(v), numbers(3))
  point?: Vec3;
}

/** How a rider that aims turns to its target. */
export class Aim {
  /** From facing the path (0) to facing the target (1); 1 where there are no keys. */
  @NestedList(() => InfluenceKey, LIMITS.keysPerPace) influence: InfluenceKey[] = [];
  /** The target may wander this far from where the rider looks before it turns. */
  @Amount('degrees', 0, 180) deadZone = 0;
  /** How long a time the turning is smoothed over, before and after alike. */
  @Amount('seconds', 0, 60) damping = 0;
  /** The most it turns left and right of its way, and up and down from it; softly. */
  @Amount('degrees', 0, 180) yawLimit = 180;
  @Amount('degrees', 0, 90) pitchLimit = 90;
}

/** Which way the rider looks: the model's own axes, and what they are turned to. */
export class Facing {
  @OneOf('path', 'keep', 'aim') mode: 'path' | 'keep' | 'aim' = 'path';
  @OneOf(...AXES) forward: Axis = '+z';
  @OneOf(...AXES) up: Axis = '+y';
  @OneOf('world', 'path', 'ground') reference: 'world' | 'path' | 'ground' = 'world';
  /** The nose goes along the path; or where the rider really goes, keyed offsets and reverse included. */
  @OneOf('path', 'travel') along: 'path' | 'travel' = 'path';
  /** How long it takes to turn round where `travel` turns back. */
  @Amount('seconds', 0, 1e3) turnTime = 0.5;
  @NestedOrNull(() => AimTarget) target: AimTarget | null = null;
  @Amount('metres ahead on the path') ahead = 0;
  @Nested(() => Aim) aim: Aim = new Aim();
  /** From turned as it rests (0) to facing (1); 1 where there are no keys. */
  @NestedList(() => InfluenceKey, LIMITS.keysPerPace) influence: InfluenceKey[] = [];
}
