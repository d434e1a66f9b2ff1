import type { Shot } from './shot.js';

/** The number of frames of a shot, first and last included. */
export function frameCount(shot: Pick<Shot, 'range'>): number {
  return shot.range.last - shot.range.first + 1;
}

/** Seconds from the first frame. */
export function frameTime(shot: Pick<Shot, 'range' | 'fps'>, frame: number): number {
  return (frame - shot.range.first) / shot.fps;
}
