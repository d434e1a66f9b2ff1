import fc from 'fast-check';
import type { GroundSurface } from './ground-surface.js';
import { trackByDistance, trackByFrame, trackNodes } from './ground-track.js';

/** So far back a last good height is looked for, frames. */
const BACK = 48;
const BAND = { up: 1, down: 1 };
/** How high a rider is that finds no ground. */
const OWN = -7;

/** A track on ground given by frame and distance across: a rider travels 100 m a frame, and the wheel is across its path. */
function trackOn(height: (frame: number, across: number) => number | null) {
  const surface = {
    height: (x: number, z: number) => height(x / 100, z),
  } as Pick<GroundSurface, 'height'> as GroundSurface;
  return trackByFrame(
    surface,
    BAND,
    (frame, out) => out.set([100 * frame, OWN, 0]),
    (_, out) => out.set([0, 0, 1]),
    1,
  );
}

describe('the ground along a path', () => {
  it('is not looked for where it is known that there is none', () => {
    // Ground for the first 10 m of 1,000; beyond 20 m it is known that there is none.
    const surface = {
      height: (x: number) => (x < 10 ? x / 4 : null),
    } as Pick<GroundSurface, 'height'> as GroundSurface;
    const trackOf = (isNowhere?: (at: number) => boolean) => {
      const looks = { count: 0 };
      const place = (at: number, out: Float64Array) => {
        looks.count++;
        out.set([at, OWN, 0]);
      };
      return {
        looks,
        track: trackByDistance(surface, BAND, place, trackNodes(0.25, 1_000), false, isNowhere),
      };
    };
    const [told, untold] = [trackOf((at) => at > 20), trackOf()];
    for (const at of [5, 950, 30, 12, 1_100, 240, 9.9, 400, -3]) {
      expect(told.track.height(at)).toBe(untold.track.height(at));
      expect(told.track.missing(at)).toBe(untold.track.missing(at));
    }
    // A thousand radii back the last ground is still taken, and none after that.
    expect(told.track.height(240)).toBeLessThan(2.5);
    expect(told.track.height(240)).toBeGreaterThan(2.4);
    expect(told.track.height(400)).toBeCloseTo(OWN, 9);
    expect(told.looks.count).toBeLessThan(untold.looks.count / 10);
  });
});

it('beyond the ends of a path the ground is what it is there, however much was looked at before', () => {
  const surface = { height: (x: number) => x / 4 } as Pick<GroundSurface, 'height'> as GroundSurface;
  const place = (at: number, out: Float64Array) => void out.set([at, at / 4, 0]);
  const track = trackByDistance(surface, BAND, place, trackNodes(0.25, 10), false);
  const step = 10 / trackNodes(0.25, 10).count;
  for (let k = 0; k < 50_000; k += 7) track.height(10 + k * step);
  for (const at of [-3, 10.5, 11, 1_000, -3]) expect(track.height(at)).toBeCloseTo(at / 4, 9);
  expect(track.missing(-3)).toBe(false);
});

describe('the ground under something that keeps to no line, frame by frame', () => {
  it('is where it was at the last whole frame that had ground, and its own height long after', () => {
    const track = trackOn((frame) => (frame <= 10 || (frame > 30 && frame <= 31) ? frame : null));
    // Asked from behind, from before, between, and again.
    for (const frame of [30.5, 11, 10.25, 30, 17.5, 25, 10.25, 31, 31.5, 60, 10 + BACK, 20])
      expect([frame, track.height(frame)]).toEqual([
        frame,
        expect.closeTo(frame > 31 ? 31 : frame > 30 ? frame : Math.min(frame, 10), 9),
      ]);
    expect(track.height(31 + BACK)).toBeCloseTo(31, 9);
    expect(track.height(31 + BACK + 0.5)).toBeCloseTo(OWN, 9);
    expect(track.missing(30.2)).toBe(false);
    expect(track.missing(12)).toBe(true);
  });

  it('follows from the frame alone, in whatever order it is asked for', () => {
    const hole = (frame: number, across: number, seed: number) =>
      Math.sin(12.9898 * Math.floor(frame) + 78.233 * across + seed) > 0;
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 1000 }),
        fc.array(fc.integer({ min: 0, max: 480 }), { minLength: 2, maxLength: 60 }),
        (seed, quarters) => {
          const height = (frame: number, across: number) =>
            hole(frame, across, seed) || frame < 3 ? null : Math.sin(frame) + across * across;
          const track = trackOn(height);
          for (const quarter of quarters)
            expect(track.height(quarter / 4)).toBe(trackOn(height).height(quarter / 4));
        },
      ),
      { numRuns: 60 },
    );
  });
});
