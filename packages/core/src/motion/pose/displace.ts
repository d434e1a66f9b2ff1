import type { RideTransform } from '../../document/shot-attachment.js';

/**
 * Moves a frame of travel (position, left, up, forward) with a whole ride: scaled and turned to the left about
 * the world's origin, then moved. Allocates nothing.
 */
export function displaceFrame({ translation, turn, size }: RideTransform, frame: Float64Array): void {
  const angle = (turn * Math.PI) / 180;
  const cos = Math.cos(angle);
  const sin = Math.sin(angle);
  for (let at = 0; at < 12; at += 3) {
    const scale = at === 0 ? size : 1;
    const x = frame[at];
    const z = frame[at + 2];
    frame[at] = scale * (cos * x + sin * z);
    frame[at + 1] *= scale;
    frame[at + 2] = scale * (cos * z - sin * x);
  }
  for (let k = 0; k < 3; k++) frame[k] += translation[k];
}

/** Two displacements as one, the first done first. */
export function displacedTwice(first: RideTransform, second: RideTransform): RideTransform {
  const frame = new Float64Array(12);
  frame.set(first.translation);
  displaceFrame(second, frame);
  return {
    translation: [frame[0], frame[1], frame[2]],
    turn: first.turn + second.turn,
    size: first.size * second.size,
  };
}
