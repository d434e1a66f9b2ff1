import { frameCount, pathOutline, type Shot } from '@fleet-rail/core/shots';

/** Sketch on a shot's card: its paths from above, and the riders on them. */
export interface ShotSketch {
  readonly frames: number;
  readonly fps: number;
  readonly paths: readonly { readonly points: readonly number[]; readonly color: number | null }[];
  readonly riders: readonly { readonly badge: string; readonly color: number }[];
}

const POINTS = 64;
const MOST_PATHS = 40;

/** Draws a shot from above in a few numbers: x and z of points along each path, to the centimetre. */
export function sketchShot(shot: Shot): ShotSketch {
  const paths = shot.paths.slice(0, MOST_PATHS).flatMap((path) => {
    const outline = pathOutline(path, POINTS);
    if (outline === null) return [];
    const points: number[] = [];
    for (let i = 0; i < POINTS; i++) {
      points.push(Math.round(outline[3 * i] * 100) / 100, Math.round(outline[3 * i + 2] * 100) / 100);
    }
    const rider = shot.riders.find((other) => other.attachment?.path === path.id);
    return [{ points, color: rider?.color ?? null }];
  });
  return {
    frames: frameCount(shot),
    fps: shot.fps,
    paths,
    riders: shot.riders.slice(0, 12).map(({ badge, color }) => ({ badge, color })),
  };
}
