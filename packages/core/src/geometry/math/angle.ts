/** Degrees in a radian, and radians in a degree. */
export const DEGREES = 180 / Math.PI;
export const RADIANS = Math.PI / 180;

/** A value brought into 0 … size, cycle after cycle; never size itself, which rounding would make of one a trace below 0. */
export function modulo(value: number, size: number): number {
  const rest = value % size;
  const raised = rest < 0 ? rest + size : rest;
  return raised === size ? 0 : raised;
}

/** The same angle from −π to π, radians. */
export function wrapAngle(angle: number): number {
  const turns = Math.round(angle / (2 * Math.PI));
  return turns === 0 ? angle : angle - 2 * Math.PI * turns;
}
