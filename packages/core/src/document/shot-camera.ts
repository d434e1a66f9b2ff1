import { Amount, Id, Pair, NestedList } from './constraints.js';
import { FocalKey } from './shot-keys.js';
import { LIMITS } from './limits.js';

/** Lens of a camera rider, which looks along its nose. */
export class Camera {
  @Amount('millimetres', 1, 10_000) focal = 35;
  /** Width of the sensor. */
  @Amount('millimetres', 0.1, 1_000) sensor = 36;
  /** Width of the picture over its height. */
  @Amount('width over height', 0.1, 10) aspect = 16 / 9;
  @Amount('metres', 1e-4, 1e6) near = 0.1;
  @Amount('metres', 1e-3, 1e7) far = 1_000;
  /** They hold instead of `focal` where there are any. */
  @NestedList(() => FocalKey, LIMITS.keysPerPace) keys: FocalKey[] = [];
  /** Position of the target in the picture: right and up, −1 to 1 from the middle to the edge. */
  @Pair() framing: [number, number] = [0, 0];
}

/** Which camera is looked through from a frame on. */
export class Cut {
  @Amount('frame') frame!: number;
  @Id() camera!: string;
}
