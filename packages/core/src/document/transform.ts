import type { Quat, Vec3 } from './vector.js';
import { Point, Rotation, Scale } from './constraints.js';

/** A placement: scaled first, then turned, then moved. */
export class Transform {
  @Point() translation: Vec3 = [0, 0, 0];
  @Rotation() rotation: Quat = [0, 0, 0, 1];
  @Scale() scale: Vec3 = [1, 1, 1];
}
