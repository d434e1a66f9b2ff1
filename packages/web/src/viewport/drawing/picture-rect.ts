/** A rectangle on the stage, pixels from its corner. */
export interface Rect {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Left free above and below the picture, for the buttons of the stage; what is outside of it is seen there. */
const ROOM = 46;

/** Rectangle of a camera's picture, in the middle of the stage. */
export function pictureRect(width: number, height: number, aspect: number): Rect {
  const high = Math.max(1, Math.min(height - 2 * ROOM, (width - 2 * ROOM) / aspect));
  const wide = high * aspect;
  return { x: (width - wide) / 2, y: (height - high) / 2, width: wide, height: high };
}
