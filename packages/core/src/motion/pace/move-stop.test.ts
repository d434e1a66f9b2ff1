import { defaultsOf } from '../../document/defaults.js';
import { Pace } from '../../document/shot-pace.js';
import { newShot } from '../../document/new-shot.js';
import { compiledPaceOf } from './compiled-pace-of.js';
import { compilePath } from '../../geometry/path/compile-path.js';
import { lengthenStop, moveStop } from './move-stop.js';

/** A straight of 40 m, or a square of 10 m sides round and round. */
const path = (closed: boolean) =>
  compilePath(
    newShot({
      name: 't',
      paths: [
        {
          id: 'p',
          name: 'P',
          basis: 'polyline',
          closed,
          points: (closed
            ? [
                [0, 0, 0],
                [0, 0, 10],
                [10, 0, 10],
                [10, 0, 0],
              ]
            : [
                [0, 0, 0],
                [0, 0, 40],
              ]
          ).map(([x, y, z]) => ({ position: [x, y, z] })),
        },
      ],
    }).paths[0],
  );
const keyed = (unit: Pace['unit'], metres: number): Pace => ({
  ...defaultsOf(Pace),
  unit,
  keys: [
    [1, 0],
    [49, 12],
    [73, 12],
    [121, 24],
  ].map(([frame, value]) => ({ frame, value: value / metres, ease: 'linear', in: [0, 0], out: [0, 0] })),
});
const driven: Pace = {
  ...defaultsOf(Pace),
  mode: 'drive',
  drive: { ...defaultsOf(Pace).drive, top: 4, stops: [{ distance: 15, seconds: 2 }] },
};

it.each<[Pace['unit'], number]>([
  ['metres', 1],
  ['laps', 40],
])(
  'both keys of a stop are moved, in %s, and what follows comes later when it lasts longer',
  (unit, metres) => {
    const curve = path(false);
    const pace = keyed(unit, metres);
    const [stop] = compiledPaceOf(pace, 24, curve).stops;
    const moved = moveStop(pace, stop, 1.5, curve) as Pace;
    expect(moved.keys.map(({ value }) => value * metres)).toEqual(
      [0, 13.5, 13.5, 24].map((value) => expect.closeTo(value, 9)),
    );
    const longer = lengthenStop(pace, stop, 10, 24, curve) as Pace;
    expect(longer.keys.map(({ frame }) => frame)).toEqual([1, 49, 83, 131]);
  },
);

it('of a drive the stop at that place is moved or made longer, in whatever lap it halts there', () => {
  const curve = path(true);
  const stops = compiledPaceOf(driven, 24, curve).stops.filter(({ distance }) => distance > 1);
  expect(stops.length).toBeGreaterThan(0);
  for (const stop of stops) {
    expect(curve.wrap(stop.distance)).toBeCloseTo(15, 6);
    expect(moveStop(driven, stop, -2, curve)?.drive.stops).toEqual([{ distance: 13, seconds: 2 }]);
    expect(lengthenStop(driven, stop, 12, 24, curve)?.drive.stops).toEqual([{ distance: 15, seconds: 2.5 }]);
  }
});

it('a stop that the pace does not say itself is left alone', () => {
  const curve = path(false);
  const elsewhere = { from: 10, to: 20, distance: 3 };
  expect(moveStop(keyed('metres', 1), elsewhere, 1, curve)).toBeNull();
  expect(moveStop(driven, elsewhere, 1, curve)).toBeNull();
  expect(lengthenStop(driven, elsewhere, 5, 24, curve)).toBeNull();
  expect(moveStop({ ...defaultsOf(Pace), mode: 'speed' }, elsewhere, 1, curve)).toBeNull();
});
