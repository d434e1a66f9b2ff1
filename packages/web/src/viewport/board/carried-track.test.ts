import { POSE } from '@fleet-rail/core';
import { carriedAt, carriedTrack } from './carried-track';

it('what goes round on a ring of 5 m, 90° in 90 frames, has gone a quarter of it', () => {
  const poses = new Float64Array(91 * POSE.size);
  for (let i = 0; i <= 90; i++) {
    const angle = (i * Math.PI) / 180;
    poses.set([5 * Math.sin(angle), 2, 5 * Math.cos(angle)], i * POSE.size);
  }
  const way = carriedTrack(poses, 1);
  // Chords of one degree are shorter than their arcs by 1.3e-5 of them.
  expect(carriedAt(way, 90, 24).distance).toBeCloseTo((5 * Math.PI) / 2, 3);
  expect(carriedAt(way, 45.5, 24).distance).toBeCloseTo((45.5 * 5 * Math.PI) / 180, 3);
  expect(carriedAt(way, 45, 24).speed).toBeCloseTo((24 * 5 * Math.PI) / 180, 3);
  expect(carriedAt(carriedTrack(poses.subarray(0, POSE.size), 1), 3, 24)).toEqual({ distance: 0, speed: 0 });
});
