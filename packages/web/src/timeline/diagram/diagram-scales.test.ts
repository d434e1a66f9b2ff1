import { POSE, newAttachment, newShot } from '@fleet-rail/core';
import { evaluateWhole } from '../../workers/evaluation/evaluate-whole';
import type { DiagramShown } from '../../state/desk-store';
import { MARGIN, axisTicks, channelLine, diagramScales, frameLabel } from './diagram-scales';

const range = { first: 1, last: 241 };
const shot = newShot({
  name: 't',
  range,
  paths: [
    { id: 'p', name: 'P', basis: 'polyline', points: [{ position: [0, 0, 0] }, { position: [0, 0, 60] }] },
  ],
  riders: [{ id: 'r', name: 'R', attachment: newAttachment('p', range) }],
});
const evaluation = evaluateWhole(shot);
const [WIDTH, HEIGHT, STRIP] = [600, 200, 46];
const SIZE = { width: WIDTH, height: HEIGHT, strip: STRIP };
const shown: DiagramShown = { paths: 'own', frames: null, metres: null, axis: 'frames', strip: 'speed' };
const scales = diagramScales(shot, evaluation, SIZE, shown, shot.riders[0]);
const [band] = scales.bands;

it('time goes across from the first frame to the last', () => {
  expect(scales.x(1)).toBe(MARGIN.left);
  expect(scales.x(241)).toBe(WIDTH - MARGIN.right);
});

it('distance goes up, and everything that happens is in view above the speed strip', () => {
  expect(band.y(60)).toBeLessThan(band.y(0));
  expect(band.y(60)).toBeGreaterThanOrEqual(MARGIN.top);
  expect(band.y(0)).toBeLessThan(scales.strip.top);
  expect(scales.strip.foot).toBe(HEIGHT - MARGIN.bottom);
});

it('a steady ride is a straight line from corner to corner', () => {
  const poses = evaluation.riders.get('r')?.poses as Float64Array;
  const line = channelLine(evaluation, poses, POSE.distance, scales.x, band.y, WIDTH);
  expect(line[0]).toEqual([scales.x(1), band.y(0)]);
  expect(line.at(-1)?.[0]).toBe(scales.x(241));
  expect(line.at(-1)?.[1]).toBeCloseTo(band.y(60), 9);
  for (const [x, y] of line) {
    const part = (x - scales.x(1)) / (scales.x(241) - scales.x(1));
    expect(y).toBeCloseTo(band.y(60 * part), 6);
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
  const nothing = newShot({ name: 'e', range: { first: 5, last: 5 } });
  const empty = diagramScales(nothing, null, { width: 10, height: 10, strip: STRIP }, shown, null);
  expect([Number.isFinite(empty.x(5)), empty.bands]).toEqual([true, []]);
});

it('all paths stand one above another, and a part that is looked at fills the room', () => {
  const two = newShot({
    ...shot,
    paths: [...shot.paths, { ...shot.paths[0], id: 'q', name: 'Q' }],
    riders: [...shot.riders, { ...shot.riders[0], id: 's', attachment: newAttachment('q', range) }],
  });
  const stacked = diagramScales(two, null, SIZE, { ...shown, paths: 'all' }, two.riders[0]);
  expect(stacked.bands.map(({ pathId }) => pathId)).toEqual(['p', 'q']);
  expect(stacked.bands[0].foot).toBeLessThan(stacked.bands[1].top);
  const near = diagramScales(
    shot,
    evaluation,
    SIZE,
    { ...shown, frames: [50, 70], metres: [10, 20] },
    shot.riders[0],
  );
  expect([near.x(50), near.x(70)]).toEqual([MARGIN.left, WIDTH - MARGIN.right]);
  expect([near.bands[0].y(20), near.bands[0].y(10)]).toEqual([near.bands[0].top, near.bands[0].foot]);
});

it('the axis counts frames, seconds or timecode', () => {
  const labels = (axis: DiagramShown['axis']) =>
    axisTicks(scales.x, axis, shot, 5).map((frame) => frameLabel(frame, axis, shot));
  expect(labels('frames')).toEqual(['50', '100', '150', '200']);
  expect(labels('seconds')).toEqual(['0 s', '2 s', '4 s', '6 s', '8 s', '10 s']);
  expect(labels('timecode')).toEqual([
    '00:00:00',
    '00:02:00',
    '00:04:00',
    '00:06:00',
    '00:08:00',
    '00:10:00',
  ]);
});
