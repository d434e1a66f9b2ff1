import type { Pace } from '../../document/shot-pace.js';
import type { BentTrack } from '../../geometry/path/corners.js';

const turned = new WeakMap<BentTrack, BentTrack>();

/** A track the other way round; the same one for the same track, so that what is kept with it is found again. */
export function turnedTrack(track: BentTrack): BentTrack {
  const cached = turned.get(track);
  if (cached) return cached;
  const { length, closed } = track;
  const back: BentTrack = {
    length,
    closed,
    joints: track.joints.map((s) => length - s).reverse(),
    curvature: (s) => -track.curvature(length - s),
    tangent(s, out) {
      track.tangent(length - s, out);
      for (let k = 0; k < 3; k++) out[k] = -out[k];
    },
  };
  turned.set(track, back);
  return back;
}

/** A driven pace with its start, stops and zones where they are on the turned track. */
export function turnedPace(pace: Pace, length: number, metres: number): Pace {
  const { drive, start } = pace;
  return {
    ...pace,
    start: { ...start, value: (length - start.value * metres) / metres },
    drive: {
      ...drive,
      stops: drive.stops.map((stop) => ({ ...stop, distance: length - stop.distance })),
      zones: drive.zones.map((zone) => ({ ...zone, from: length - zone.to, to: length - zone.from })),
    },
  };
}
