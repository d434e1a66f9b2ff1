import type { RetimeKey } from '../../document/shot-retime.js';

/**
 * A step that maps a rider's own frames to other frames of the shot; plain data, so that it can be sent between
 * threads. - `start`: it begins by itself at `begins`, and by a cue at `go`. - `stopEnd`: a stop, in the frames after
 * the earlier steps, that ends by a cue at `end` and not at `to`. - `retime`: time is bent by keys. `go` and `end`
 * are null if the cue never comes.
 */
export type FrameStep =
  | { readonly kind: 'start'; readonly begins: number; readonly go: number | null }
  | { readonly kind: 'stopEnd'; readonly from: number; readonly to: number; readonly end: number | null }
  | { readonly kind: 'retime'; readonly keys: readonly RetimeKey[] };

/** Between a rider's own frames, in which its pace is keyed, and the frames at which the shot shows them. */
export interface FrameMapping {
  /** The own frame that is shown at a frame. */
  own(frame: number): number;
  /** Own frames per shown frame: 1 as keyed, 0 while it waits. */
  rate(frame: number): number;
  /** First shown frame of an own frame; null if it is never shown. */
  shown(own: number): number | null;
}
