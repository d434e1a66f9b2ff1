import { compilePath } from '../../geometry/path/compile-path.js';
import { shapePath } from '../../geometry/reshape/shapes.js';
import type { Pace } from '../../document/shot-pace.js';
import { compilePace } from './compile-pace.js';
import { fitPace } from './fit-pace.js';
import { paceOf } from '../../../test/tracks.js';

const track = compilePath(shapePath({ kind: 'eight', length: 80, width: 40, bridge: 3 }, [0, 0, 0]));
const range = { first: 1, last: 240 };
const FPS = 24;

const eased = paceOf({
  keys: [
    { frame: 1, value: 3, ease: 'smooth' },
    { frame: 60, value: 30, ease: 'linear' },
    { frame: 100, value: 30, ease: 'smooth' },
    { frame: 160, value: 70, ease: 'handles', out: [20, 9] },
    { frame: 240, value: 100, in: [-30, 0] },
  ],
});
const stepped = paceOf({
  keys: [
    { frame: 1, value: 0 },
    { frame: 40, value: 20 },
    { frame: 90, value: 35, ease: 'hold' },
    { frame: 240, value: 35 },
  ],
});
const sped = paceOf({
  mode: 'speed',
  speeds: [
    { frame: 20, speed: 2 },
    { frame: 90, speed: 9 },
    { frame: 200, speed: -3 },
  ],
});
const bySpot = paceOf({
  mode: 'speed',
  speeds: [
    { distance: 10, speed: 3 },
    { distance: 60, speed: 8 },
  ],
});
const driven = paceOf({ mode: 'drive', drive: { stops: [{ distance: 40, seconds: 1.5 }] } });

/** Distance between two paces, sampled where no fit was. */
function difference(a: Pace, b: Pace, frames: [number, number]) {
  const [p, q] = [compilePace(a, FPS, track), compilePace(b, FPS, track)];
  let [place, speed, most] = [0, 0, 0];
  for (let frame = frames[0] + 0.013; frame < frames[1]; frame += 0.171) {
    place = Math.max(place, Math.abs(p.distance(frame) - q.distance(frame)));
    speed = Math.max(speed, Math.abs(p.speed(frame) - q.speed(frame)));
    most = Math.max(most, Math.abs(p.speed(frame)));
  }
  return { place, speed: speed / most };
}

it.each([
  ['keys by speeds', eased, 'speed', [1, 240], 60],
  ['straight and held keys by speeds', stepped, 'speed', [1, 240], 5],
  ['speeds by keys', sped, 'keys', [20, 200], 24],
  ['speeds by distance by keys', bySpot, 'keys', [1, 240], 30],
  ['a drive by keys', driven, 'keys', [1, 240], 90],
  ['a drive by speeds', driven, 'speed', [1, 240], 160],
] as const)('%s: within a millimetre and one per cent, with few keys', (_, pace, mode, frames, most) => {
  const fitted = fitPace(pace, mode, FPS, track, range);
  expect(fitted.pace.mode).toBe(mode);
  const { place, speed } = difference(pace, fitted.pace, [...frames]);
  expect(place).toBeLessThanOrEqual(1.1e-3);
  // The step of a speed is made within a thousandth of a frame, which no look falls into.
  expect(speed).toBeLessThanOrEqual(0.011);
  expect(fitted.pace[mode === 'keys' ? 'keys' : 'speeds'].length).toBeLessThanOrEqual(most);
  expect(fitted.distanceError).toBeLessThanOrEqual(1.1e-3);
});

it('there and back is the same motion', () => {
  const there = fitPace(sped, 'keys', FPS, track, range).pace;
  const back = fitPace(there, 'speed', FPS, track, range).pace;
  expect(difference(sped, back, [20, 200]).place).toBeLessThan(2.5e-3);
});

it('a drive takes over the stops and the highest of what was seen', () => {
  const { drive } = fitPace(eased, 'drive', FPS, track, range).pace;
  expect(drive.stops).toEqual([{ distance: 30, seconds: expect.closeTo(40 / 24, 9) }]);
  const seen = compilePace(eased, FPS, track);
  let top = 0;
  for (let frame = 1; frame <= 240; frame += 0.1) top = Math.max(top, seen.speed(frame));
  expect(drive.top).toBeCloseTo(top, 1);
});
