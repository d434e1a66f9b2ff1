import fc from 'fast-check';
import type { Loose } from '../../document/new-shot.js';
import type { Drive, Pace } from '../../document/shot-pace.js';
import type { Basis } from '../../document/shot-path.js';
import { compilePath } from '../../geometry/path/compile-path.js';
import { shapePath } from '../../geometry/reshape/shapes.js';
import { pathOf } from '../../../test/paths.js';
import { compilePace } from './compile-pace.js';
import { driveSeconds, topSpeedFor } from './drive-curve.js';
import type { BentTrack } from '../../geometry/path/corners.js';
import { paceOf, straight } from '../../../test/tracks.js';

const FPS = 24;
const driven = (drive: Loose<Drive>, more: Loose<Pace> = {}) =>
  paceOf({ mode: 'drive', drive, start: { frame: 0, value: 0 }, ...more });

/** A crooked path of random points; or a polyline, all corners. */
const anyTrack = fc.record({
  basis: fc.constantFrom('bezier' as const, 'through' as const, 'bspline' as const, 'polyline' as const),
  closed: fc.boolean(),
  points: fc.array(fc.tuple(fc.integer({ min: -30, max: 30 }), fc.integer({ min: -30, max: 30 })), {
    minLength: 4,
    maxLength: 8,
  }),
});
const trackOf = ({ basis, closed, points }: { basis: Basis; closed: boolean; points: [number, number][] }) =>
  compilePath(
    pathOf({
      basis,
      closed,
      points: points.map(([x, z], i) => ({ position: [x + i * 0.37, 0, z], handles: 'auto' })),
    }),
  );
const anyDrive = fc.record({
  top: fc.double({ min: 2, max: 20, noNaN: true }),
  accelerate: fc.double({ min: 0.5, max: 5, noNaN: true }),
  brake: fc.double({ min: 0.5, max: 6, noNaN: true }),
  sideways: fc.double({ min: 1, max: 6, noNaN: true }),
  departs: fc.constantFrom('rest' as const, 'rolling' as const),
  arrives: fc.constantFrom('rest' as const, 'rolling' as const),
});

it('from stop to stop on a straight it speeds up, runs and brakes as the sums say', () => {
  const [top, a, b, length] = [10, 2, 4, 100];
  const pace = driven({ top, accelerate: a, brake: b, jerk: null });
  const run = compilePace(pace, FPS, straight(length));
  // v/a up, v/b down, the rest at v: 5 s over 25 m, 2.5 s over 12.5 m, 62.5 m in 6.25 s.
  expect(driveSeconds(pace, straight(length), 1)).toBeCloseTo(13.75, 9);
  for (const t of [1, 3, 4.9]) expect(run.distance(t * FPS)).toBeCloseTo((a * t * t) / 2, 8);
  expect(run.speed(8 * FPS)).toBeCloseTo(10, 10);
  expect(run.speed(12.75 * FPS)).toBeCloseTo(4, 8);
  expect([run.distance(13.75 * FPS), run.distance(20 * FPS)]).toEqual([
    expect.closeTo(length, 8),
    expect.closeTo(length, 8),
  ]);
});

it('round a circle it goes as fast as its grip lets it', () => {
  const circle = compilePath(shapePath({ kind: 'circle', radius: 9 }, [0, 0, 0]));
  const run = compilePace(driven({ top: 50, sideways: 4, departs: 'rolling' }), FPS, circle);
  for (let frame = 0; frame < 500; frame += 11) expect(run.speed(frame)).toBeCloseTo(6, 2);
});

/**
 * The place itself, or the nearest that is a billionth of the length from any joint. Where a handle has no length the
 * curvature has no bound right at its joint, and nearer than that what is found of it is rounding.
 */
function besideJoints({ joints, length, closed }: BentTrack, s: number): number {
  const hair = length * 1e-9;
  const on = closed ? s - Math.floor(s / length) * length : s;
  const joint = joints.find((at) => Math.abs(on - at) < hair);
  return joint === undefined ? s : joint === 0 ? hair : joint - hair;
}

/** Highest share of each limit that a run uses, sampled four times a frame. */
function shares(track: BentTrack, pace: Pace, frames: number) {
  const run = compilePace(pace, FPS, track);
  const { top, accelerate, brake, sideways, jerk, zones } = pace.drive;
  const most = { top: 0, accelerate: 0, brake: 0, sideways: 0, jerk: 0, zone: 0 };
  const raise = (what: keyof typeof most, value: number) => (most[what] = Math.max(most[what], value));
  for (let frame = 0; frame <= frames; frame += 0.25) {
    const [s, v, a] = [run.distance(frame), run.speed(frame), run.acceleration(frame)];
    if (!track.closed && (s <= 0 || s >= track.length)) continue;
    raise('top', v / top);
    raise('accelerate', a / accelerate);
    raise('brake', -a / brake);
    // A bend within a radius of 5 cm is a corner: it is passed at a crawl.
    const bend = Math.min(20, Math.abs(track.curvature(besideJoints(track, s))));
    raise('sideways', (v * v * bend) / sideways);
    if (jerk !== null) raise('jerk', Math.abs(run.jerk(frame)) / jerk);
    for (const { from, to, speed } of zones) if (s >= from && s <= to) raise('zone', v / speed);
  }
  return most;
}

it('no limit is passed by more than 0.1 %, on any path, with jerk and zones', () => {
  fc.assert(
    fc.property(anyTrack, anyDrive, fc.double({ min: 1, max: 30, noNaN: true }), (spec, drive, jerk) => {
      const track = trackOf(spec);
      fc.pre(track.length > 20);
      const zones = [{ from: track.length * 0.3, to: track.length * 0.45, speed: 1.5 }];
      const stops = [{ distance: track.length * 0.7, seconds: 1.3 }];
      const most = shares(track, driven({ ...drive, jerk, zones, stops }), 1500);
      expect(Object.entries(most).filter(([, share]) => share > 1.001)).toEqual([]);
    }),
    { numRuns: 40 },
  );
});

it('without the jerk limit some limit is reached at every place', () => {
  fc.assert(
    fc.property(anyTrack, anyDrive, (spec, drive) => {
      const track = trackOf(spec);
      fc.pre(track.length > 20 && track.joints.length < 60);
      const run = compilePace(driven({ ...drive, jerk: null, departs: 'rolling' }), FPS, track);
      let idle = 0;
      let looks = 0;
      for (let frame = 0.1; frame < 1200; frame += 0.63) {
        const [s, v, a] = [run.distance(frame), run.speed(frame), run.acceleration(frame)];
        if (!track.closed && (s <= 0.2 || s >= track.length - 0.2)) continue;
        looks++;
        // A bend is between the grid's places, which are no more than 0.1 m apart; a corner is spread over a metre.
        const bends = [-0.1, 0, 0.1].map((d) => Math.abs(track.curvature(s + d)));
        const grip = (v * v * Math.max(...bends)) / drive.sideways;
        const nearCorner = track.joints.some(
          (at) => Math.abs(track.closed ? track.wrap(s - at + 1) - 1 : s - at) < 0.7,
        );
        const active = [v / drive.top, a / drive.accelerate, -a / drive.brake, grip];
        if (Math.max(...active) < 0.999 && !nearCorner) idle++;
      }
      expect(idle / Math.max(1, looks)).toBeLessThan(0.002);
    }),
    { numRuns: 30 },
  );
});

it('stands at its stops for as long as it is told, exactly there, with and without jerk limit', () => {
  for (const jerk of [null, 6]) {
    const stops = [
      { distance: 30, seconds: 2 },
      { distance: 62.5, seconds: 0.75 },
    ];
    const run = compilePace(driven({ jerk, stops }), FPS, straight(120));
    expect(run.stops.map(({ distance }) => distance)).toEqual([30, 62.5]);
    run.stops.forEach(({ from, to }, i) => {
      expect((to - from) / FPS).toBeCloseTo(stops[i].seconds, 9);
      for (const frame of [from + 0.01, (from + to) / 2, to - 0.01]) {
        expect(run.distance(frame)).toBeCloseTo(stops[i].distance, 9);
        expect(run.speed(frame)).toBeCloseTo(0, 9);
      }
      expect(run.speed(from - 6)).toBeGreaterThan(0.01);
      expect(run.speed(to + 6)).toBeGreaterThan(0.01);
    });
  }
});

it('round a closed path every lap is the one before, and from rest it comes up to it', () => {
  const eight = compilePath(shapePath({ kind: 'eight', length: 60, width: 30, bridge: 3 }, [0, 0, 0]));
  const flying = driven({ top: 9, departs: 'rolling', stops: [] });
  const lap = driveSeconds(flying, eight, 1) * FPS;
  const run = compilePace(flying, FPS, eight);
  const fromRest = driven({ top: 9 });
  const rising = compilePace(fromRest, FPS, eight);
  const restLap = driveSeconds(fromRest, eight, 1) * FPS;
  expect(run.distance(0)).toBeCloseTo(0, 9);
  expect([rising.distance(0), rising.speed(0)]).toEqual([expect.closeTo(0, 12), expect.closeTo(0, 12)]);
  for (let frame = 0; frame < lap; frame += 13) {
    expect(run.distance(frame + 7 * lap)).toBeCloseTo(run.distance(frame) + 7 * eight.length, 7);
    expect(run.speed(frame + 7 * lap)).toBeCloseTo(run.speed(frame), 7);
    const later = rising.distance(frame + 3 * restLap);
    expect(rising.distance(frame + 4 * restLap)).toBeCloseTo(later + eight.length, 7);
  }
});

it('finds the top speed that fits a time, or says that none does', () => {
  const pace = driven({ accelerate: 2, brake: 3, jerk: 4, stops: [{ distance: 50, seconds: 2 }] });
  const track = straight(200);
  for (const seconds of [30, 45, 90]) {
    const top = topSpeedFor(pace, track, 1, seconds) as number;
    expect(driveSeconds({ ...pace, drive: { ...pace.drive, top } }, track, 1)).toBeCloseTo(seconds, 5);
  }
  expect(topSpeedFor(pace, track, 1, 10)).toBeNull();
});

it('begins part-way, between places of the grid, and where it is to stop', () => {
  for (const value of [33.333, 60, 119.99]) {
    const run = compilePace(
      driven({ stops: [{ distance: 60, seconds: 1 }] }, { start: { frame: 5, value } }),
      FPS,
      straight(120),
    );
    expect(run.distance(5)).toBeCloseTo(value, 9);
    expect(run.distance(2000)).toBeCloseTo(120, 9);
  }
  const round = driven({ departs: 'rolling' }, { start: { frame: 5, value: 733.333 } });
  expect(compilePace(round, FPS, straight(100, true)).distance(5)).toBeCloseTo(733.333, 9);
});
