import type { Quat, Vec3 } from './vector.js';
import { IdOrNull, Amount, Point, Rotation } from './constraints.js';

/** Carrier of a rider from a frame on, whatever it rides itself. */
export class ParentKey {
  @Amount('frame') frame!: number;
  /** Null for none: it continues by itself. */
  @IdOrNull('rider')
  rider: string | null = null;
  /** Position and rotation on its carrier. */
  @Point() translation: Vec3 = [0, 0, 0];
  @Rotation() rotation: Quat = [0, 0, 0, 1];
  /** How long it takes from where it would have been to there. */
  @Amount('seconds', 0, 1e4) blend = 0;
}
