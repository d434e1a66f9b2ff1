import type { Drive, Pace } from '../../document/shot-pace.js';

/** Maps frames from `from` on to frames from `to` on, scaled. */
export interface FrameMap {
  readonly from: number;
  readonly to: number;
  /** Above 0. */
  readonly scale: number;
}

/** A frame by a map. */
export const mapFrame = ({ from, to, scale }: FrameMap, frame: number): number => to + (frame - from) * scale;

/** A pace with its keys, handles and start at other frames. Speeds and limits, which are in seconds, stay. */
export function withFrames(pace: Pace, map: FrameMap): Pace {
  const handle = ([frames, value]: [number, number]): [number, number] => [frames * map.scale, value];
  return {
    ...pace,
    keys: pace.keys.map((key) => ({
      ...key,
      frame: mapFrame(map, key.frame),
      in: handle(key.in),
      out: handle(key.out),
    })),
    speeds: pace.speeds.map((key) =>
      key.frame === undefined ? key : { ...key, frame: mapFrame(map, key.frame) },
    ),
    start: { ...pace.start, frame: mapFrame(map, pace.start.frame) },
  };
}

/**
 * A pace whose speeds and limits are scaled. A drive by scaled limits is the same drive in scaled time: speeds by the
 * rate, accelerations by its square, jerk by its cube.
 */
export function timesAsFast(pace: Pace, rate: number): Pace {
  return {
    ...pace,
    speeds: pace.speeds.map((key) => ({ ...key, speed: key.speed * rate })),
    drive: fasterDrive(pace.drive, rate),
  };
}

function fasterDrive(drive: Drive, rate: number): Drive {
  const { top, accelerate, brake, sideways, jerk, stops, zones } = drive;
  return {
    ...drive,
    top: top * rate,
    accelerate: accelerate * rate ** 2,
    brake: brake * rate ** 2,
    sideways: sideways * rate ** 2,
    jerk: jerk === null ? null : jerk * rate ** 3,
    stops: stops.map((stop) => ({ ...stop, seconds: stop.seconds / rate })),
    zones: zones.map((zone) => ({ ...zone, speed: zone.speed * rate })),
  };
}
