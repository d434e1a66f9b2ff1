/**
 * Moves a place to the left and up of a frame of travel, metres.
 *
 * @param frame position, left, up and forward, three numbers each
 * @param place its first three numbers are moved
 */
export function moveBeside(
  frame: Float64Array,
  side: number,
  rise: number,
  place: { [index: number]: number },
): void {
  for (let k = 0; k < 3; k++) place[k] += side * frame[3 + k] + rise * frame[6 + k];
}
