/**
 * How a pose stands in an array: place and rotation in the world, then what the board shows.
 * Every sampled channel, the CSV and the stage read it by these names.
 */
export const POSE = {
  translation: 0,
  rotation: 3,
  /** Metres along the path. */
  distance: 7,
  /** Metres per second along the path. */
  speed: 8,
  /** Degrees, negative in a left turn. */
  bank: 9,
  size: 10,
} as const;

/** Writes a rider's pose at a (fractional) frame into `out[at …]`. */
export type PoseAt = (frame: number, out: Float64Array, at: number) => void;
