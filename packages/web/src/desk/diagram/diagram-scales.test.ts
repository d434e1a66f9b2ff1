import { POSE, newHitch, newShot } from '@fleet-rail/core';
import { withUpdate } from '../../evaluation/evaluation';
import { Evaluator } from '../../evaluation/evaluator';
import { encodeDelta } from '../../evaluation/shot-delta';
import { MARGIN, channelLine, diagramScales } from './diagram-scales';

const range = { first: 1, last: 241 };
const shot = newShot({
  name: 't',
  range,
  paths: [
    { id: 'p', name: 'P', basis: 'polyline', points: [{ position: [0, 0, 0] }, { position: [0, 0, 60] }] },
  ],
  riders: [{ id: 'r', name: 'R', hitch: newHitch('p', range) }],
});
const evaluation = withUpdate(null, new Evaluator().evaluate(encodeDelta(null, shot)));
const [WIDTH, HEIGHT, STRIP] = [600, 200, 46];
const scales = diagramScales(shot, evaluation, WIDTH, HEIGHT, STRIP);

it('time goes across from the first frame to the last', () => {
  expect(scales.x(1)).toBe(MARGIN.left);
  expect(scales.x(241)).toBe(WIDTH - MARGIN.right);
});

it('distance goes up, and everything that happens is in view above the speed strip', () => {
  expect(scales.distance(60)).toBeLessThan(scales.distance(0));
  expect(scales.distance(60)).toBeGreaterThanOrEqual(MARGIN.top);
  expect(scales.distance(0)).toBeLessThan(scales.speed(6));
  expect(scales.speed(0)).toBeLessThanOrEqual(HEIGHT - MARGIN.bottom);
});

it('a steady ride is a straight line from corner to corner', () => {
  const poses = evaluation.riders.get('r')?.poses as Float64Array;
  const line = channelLine(evaluation, poses, POSE.distance, scales.x, scales.distance, WIDTH);
  expect(line[0]).toEqual([scales.x(1), scales.distance(0)]);
  expect(line.at(-1)?.[0]).toBe(scales.x(241));
  expect(line.at(-1)?.[1]).toBeCloseTo(scales.distance(60), 9);
  for (const [x, y] of line) {
    const part = (x - scales.x(1)) / (scales.x(241) - scales.x(1));
    expect(y).toBeCloseTo(scales.distance(60 * part), 6);
  }
});

it('a long shot is thinned to about two places a pixel, its last frame kept', () => {
  const poses = new Float64Array(100_000 * POSE.size);
  const line = channelLine(
    { ...evaluation, first: 1, step: 1 },
    poses,
    POSE.distance,
    (f) => f,
    (v) => v,
    500,
  );
  expect(line.length).toBeLessThan(1_200);
  expect(line.at(-1)?.[0]).toBe(100_000);
});

it('an empty shot has scales too', () => {
  const empty = diagramScales(newShot({ name: 'e', range: { first: 5, last: 5 } }), null, 10, 10, STRIP);
  expect([empty.x(5), empty.distance(0), empty.speed(0)].every(Number.isFinite)).toBe(true);
});
