import { Camera, defaultsOf, focalAt, newShot } from '@fleet-rail/core';
import { sizeHeld } from './hold-size';

const shot = newShot({ name: 't', range: { first: 1, last: 97 } });
const camera: Camera = { ...defaultsOf(Camera), focal: 40 };

it('the lens is as much longer as its target is further off, and what it is at the frame it stays', () => {
  const distances = Array.from({ length: 97 }, (_, i) => 8 + (i / 16) ** 2);
  const keys = sizeHeld(shot, camera, distances, 33) ?? [];
  expect(keys.length).toBeGreaterThan(2);
  expect(keys.length).toBeLessThan(40);
  const zoomed = { ...camera, keys };
  for (let frame = 1; frame <= 97; frame++) {
    const size = focalAt(zoomed, frame) / distances[frame - 1];
    expect(Math.abs(size / (40 / distances[32]) - 1)).toBeLessThan(0.01);
  }
});

it('where no lens would do there are no keys', () => {
  expect(sizeHeld(shot, camera, new Float64Array(97).fill(0), 1)).toBeNull();
  const distances = Array.from({ length: 97 }, (_, i) => (i === 50 ? 1e6 : 5));
  expect(sizeHeld(shot, camera, distances, 1)).toBeNull();
});
