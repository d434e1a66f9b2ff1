import type { Vec3 } from '../math/vec.js';
import { distance3 } from '../math/vec.js';
import { compilePace } from '../../motion/pace/compile-pace.js';
import { compilePath } from '../path/compile-path.js';
import { newAttachment } from '../../motion/ride/new-attachment.js';
import { rideFromMotion } from './ride-from-motion.js';

/** The farthest the ride is from the motion at any of its frames. */
function farthest(
  places: readonly Vec3[],
  tolerance: number,
  keyed: 'straight' | 'curved' = 'straight',
): { most: number; keys: number; points: number } {
  const frames = places.map((_, i) => 10 + i);
  const { path, keys } = rideFromMotion('m', frames, Float64Array.from(places.flat()), tolerance, keyed);
  const curve = compilePath(path);
  const { pace } = newAttachment('m', { first: 1, last: 2 });
  const run = compilePace({ ...pace, unit: 'metres', keys }, 24, curve);
  const here: Vec3 = [0, 0, 0];
  let most = 0;
  places.forEach((place, i) => {
    curve.position(run.distance(frames[i]), here);
    most = Math.max(most, distance3(here, place));
  });
  return { most, keys: keys.length, points: path.points.length };
}

it('a steady straight motion is two points and two keys', () => {
  const places = Array.from({ length: 50 }, (_, i): Vec3 => [0, 0, i / 5]);
  const { most, keys, points } = farthest(places, 0.001);
  expect([keys, points]).toEqual([2, 2]);
  expect(most).toBeLessThan(1e-6);
});

it('a motion that crosses its own track keeps to the branch it is on', () => {
  const places = Array.from({ length: 200 }, (_, i): Vec3 => {
    const t = 0.3 + (2 * Math.PI * i) / 199;
    return [10 * Math.sin(2 * t), 0, 20 * Math.sin(t)];
  });
  const { most, points } = farthest(places, 0.02);
  expect(most).toBeLessThan(0.02);
  expect(points).toBeLessThan(40);
});

it('a motion that speeds up, halts and goes on is there on time', () => {
  const places = Array.from({ length: 120 }, (_, i): Vec3 => {
    const t = i < 40 ? i * i : i < 80 ? 1600 : 1600 + (i - 80) * 30;
    return [Math.sin(t / 600) * 5, t / 900, t / 100];
  });
  const { most, keys } = farthest(places, 0.01);
  expect(most).toBeLessThan(0.05);
  expect(keys).toBeLessThan(60);
});

it('what stands still has no path, and says so', () => {
  const still = Float64Array.from([1, 1, 1, 1, 1, 1]);
  expect(() => rideFromMotion('Post', [1, 2], still, 0.01, 'straight')).toThrow('"Post" stands still');
});
