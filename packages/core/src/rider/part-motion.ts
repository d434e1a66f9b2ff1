import type { CueAction } from '../document/shot-cue.js';
import type { Axis } from '../document/shot-facing.js';

/** A part of a rider's model that moves by itself: turned about or moved along an axis of its own. */
export interface PartMotion {
  readonly node: string;
  readonly kind: Extract<CueAction['kind'], 'turn' | 'move'>;
  readonly axis: Axis;
  /** Radians or metres from how the model stands, at a frame of the shot. */
  readonly value: (frame: number) => number;
}
