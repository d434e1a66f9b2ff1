import type { Quat, Vec3 } from './vector.js';
import { NestedList, Point, Rotation } from './constraints.js';
import { LIMITS } from './limits.js';
import { Key } from './shot-keys.js';

/** A place and a turn at a frame, in the world or on what carries it. */
export class PlaceKey extends Key {
  @Point() translation!: Vec3;
  @Rotation() rotation: Quat = [0, 0, 0, 1];
}

/** How a rider without a path is moved by hand over time. */
export class TransformKeys {
  @NestedList(() => PlaceKey, LIMITS.keysPerPace) keys: PlaceKey[] = [];
}
