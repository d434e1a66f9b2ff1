import fc from 'fast-check';
import { compilePace } from './compile-pace.js';
import { changeMode } from './fit-pace.js';
import { heldPace } from './held-pace.js';
import { paceOf, straight } from '../../../test/tracks.js';

const range = { first: 1, last: 97 };
const track = straight(60);
const MODES = ['keys', 'speed', 'drive'] as const;

const rides = {
  'along by keys': paceOf({
    keys: [
      { frame: 1, value: 5, ease: 'smooth' },
      { frame: 40, value: 25, ease: 'linear' },
      { frame: 60, value: 25, ease: 'smooth' },
      { frame: 97, value: 50 },
    ],
  }),
  'back by keys': paceOf({
    keys: [
      { frame: 1, value: 55, ease: 'smooth' },
      { frame: 97, value: 5 },
    ],
  }),
  'along by speeds': paceOf({
    mode: 'speed',
    start: { frame: 1, value: 3 },
    speeds: [
      { frame: 1, speed: 4, ease: 'linear' },
      { frame: 97, speed: 9 },
    ],
  }),
  'back driven': paceOf({
    mode: 'drive',
    start: { frame: 1, value: 58 },
    drive: { top: 9, way: 'against', stops: [{ distance: 30, seconds: 1 }] },
  }),
};

describe.each(Object.entries(rides))('a ride %s', (_, ride) => {
  it.each(MODES)('put into %s and back is what it was', (mode) => {
    const changed = changeMode(ride, mode, 24, track, range).pace;
    expect(changed.mode).toBe(mode);
    const back = changeMode(changed, ride.mode, 24, track, range).pace;
    for (const part of ['keys', 'speeds', 'drive'] as const)
      if (ride.mode.startsWith(part.slice(0, 4))) expect(back[part]).toEqual(ride[part]);
    const [before, after] = [ride, back].map((pace) => compilePace(pace, 24, track));
    for (const frame of [1, 20, 50, 80, 97])
      expect(after.distance(frame)).toBeCloseTo(before.distance(frame), 6);
  });

  it('driven goes the way it went', () => {
    const { pace } = changeMode(ride, 'drive', 24, track, range);
    const run = heldPace(compilePace(pace, 24, track), pace, track);
    const before = compilePace(ride, 24, track);
    const way = Math.sign(before.distance(97) - before.distance(1));
    expect(run.distance(1)).toBeCloseTo(before.distance(1), 6);
    expect(Math.sign(run.distance(60) - run.distance(1))).toBe(way);
    expect(Math.abs(run.distance(97) - run.distance(1))).toBeGreaterThan(3);
  });

  it('that was changed in between is fitted anew, as it moves then', () => {
    for (const mode of MODES.filter((one) => one !== ride.mode)) {
      const changed = changeMode(ride, mode, 24, track, range).pace;
      const edited =
        mode === 'drive'
          ? { ...changed, drive: { ...changed.drive, top: changed.drive.top / 2 } }
          : mode === 'keys'
            ? { ...changed, keys: changed.keys.map((key) => ({ ...key, value: key.value * 0.9 })) }
            : { ...changed, speeds: changed.speeds.map((key) => ({ ...key, speed: key.speed * 0.9 })) };
      const back = changeMode(edited, ride.mode, 24, track, range).pace;
      const [now, then] = [edited, back].map((pace) => compilePace(pace, 24, track));
      if (ride.mode === 'drive') continue;
      for (const frame of [10, 50, 90]) expect(then.distance(frame)).toBeCloseTo(now.distance(frame), 1);
    }
  });
});

it('a drive against the path is the drive along it turned round', () => {
  const long = straight(200);
  fc.assert(
    fc.property(
      fc.double({ min: 1, max: 30, noNaN: true }),
      fc.double({ min: 20, max: 180, noNaN: true }),
      fc.double({ min: 0, max: 4, noNaN: true }),
      (top, stop, seconds) => {
        const drive = { top, jerk: 5, zones: [{ from: 50, to: 70, speed: 2 }] };
        const along = compilePace(
          paceOf({
            mode: 'drive',
            start: { frame: 1, value: 10 },
            drive: { ...drive, stops: [{ distance: stop, seconds }] },
          }),
          24,
          long,
        );
        const against = compilePace(
          paceOf({
            mode: 'drive',
            start: { frame: 1, value: 190 },
            drive: {
              ...drive,
              zones: [{ from: 130, to: 150, speed: 2 }],
              way: 'against',
              stops: [{ distance: 200 - stop, seconds }],
            },
          }),
          24,
          long,
        );
        for (const frame of [1, 30, 100, 400, 1000]) {
          expect(against.distance(frame)).toBeCloseTo(200 - along.distance(frame), 6);
          expect(against.speed(frame)).toBeCloseTo(-along.speed(frame), 6);
          expect(against.acceleration(frame)).toBeCloseTo(-along.acceleration(frame), 6);
        }
        expect(against.stops.map(({ distance }) => 200 - distance)).toEqual(
          along.stops.map(({ distance }) => expect.closeTo(distance, 6)),
        );
      },
    ),
    { numRuns: 30 },
  );
});

it('whatever cycles and variations say, the place stays within what it was given', () => {
  fc.assert(
    fc.property(fc.nat(1000), fc.double({ min: 0, max: 0.5, noNaN: true }), (seed, amount) => {
      const pace = paceOf({
        keys: [
          { frame: 1, value: 20, ease: 'smooth' },
          { frame: 49, value: 40 },
        ],
        after: 'mirror',
        before: 'mirror',
        variation: { time: 0.3, amount, seed },
        within: [20, 40],
      });
      const held = heldPace(compilePace(pace, 24, track), pace, track);
      for (let frame = -300; frame <= 600; frame += 3.7) {
        expect(held.distance(frame)).toBeGreaterThanOrEqual(20);
        expect(held.distance(frame)).toBeLessThanOrEqual(40);
      }
      // The keyed cycle is unchanged.
      expect(held.distance(25)).toBeCloseTo(30, 9);
      // It turns around in between, rather than stop at an end.
      for (let frame = -300; frame <= 600; frame += 0.5)
        expect(Math.abs(held.speed(frame)) + Math.abs(held.speed(frame + 1))).toBeGreaterThan(0);
      for (let frame = -300; frame <= 600; frame += 0.25) {
        const push = ((held.speed(frame + 0.25) - held.speed(frame)) / 0.25) * 24;
        // The keyed cycle's own is 6 · 20 m / 2² s² = 30; the shortest takes 0.7 of its time, and goes half as far
        // again.
        expect(Math.abs(push)).toBeLessThan((30 * 1.5) / 0.7 ** 2 + 60);
      }
    }),
    { numRuns: 60 },
  );
});
