/** A rectangle on the stage, pixels from its corner. */
export interface Rect {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** The part of the stage that a camera's picture is fitted to; what is outside of the picture is seen round it. */
const ROOM = 0.9;

/** Where a camera's picture lies on the stage, in its middle. */
export function pictureRect(width: number, height: number, aspect: number): Rect {
  const high = Math.min(ROOM * height, (ROOM * width) / aspect);
  const wide = high * aspect;
  return { x: (width - wide) / 2, y: (height - high) / 2, width: wide, height: high };
}
