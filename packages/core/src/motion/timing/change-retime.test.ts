import type { RetimeKey } from '../../document/shot-retime.js';
import { addRetimeKey, stretchRetime, halfSpeedAround } from './change-retime.js';
import { retimingOf } from './retiming.js';

const shownAt = (keys: readonly RetimeKey[], frame: number) =>
  keys.length === 0 ? frame : retimingOf(keys).source(frame);
const half = stretchRetime([], 25, 24, 48);

it('half speed from a frame on: that second takes two, and then all is a second later', () => {
  expect(half.map(({ frame, source }) => [frame, source])).toEqual([
    [25, 25],
    [73, 49],
  ]);
  expect([10, 49, 100].map((frame) => shownAt(half, frame))).toEqual([10, 37, 76]);
});

it('a freeze stands, wherever it is put, and what follows is as it was, later', () => {
  for (const at of [10, 37, 90]) {
    const frozen = stretchRetime(half, at, 0, 24);
    const still = shownAt(half, at);
    for (const frame of [at, at + 11, at + 24]) expect(shownAt(frozen, frame)).toBeCloseTo(still, 9);
    for (const frame of [at + 1, at + 30, at + 200]) {
      expect(shownAt(frozen, frame + 24)).toBeCloseTo(shownAt(half, frame), 9);
    }
    expect(shownAt(frozen, at - 5)).toBeCloseTo(shownAt(half, at - 5), 9);
  }
});

it('slow motion within slow motion is twice as slow, over keys that are there', () => {
  const slower = stretchRetime(half, 61, 24, 48);
  // Within the stretch lies the key at 73: half-way through it, time goes from a half to a whole.
  expect(shownAt(slower, 61)).toBeCloseTo(43, 9);
  expect(shownAt(slower, 73)).toBeCloseTo(46, 9);
  expect(shownAt(slower, 85)).toBeCloseTo(49, 9);
  expect(shownAt(slower, 109)).toBeCloseTo(61, 9);
});

it('a key put in shows what was shown', () => {
  const more = addRetimeKey(half, 49);
  expect(more).toHaveLength(3);
  for (const frame of [30, 49, 60, 90]) expect(shownAt(more, frame)).toBeCloseTo(shownAt(half, frame), 9);
  expect(addRetimeKey(more, 49)).toEqual(more);
});

const around = (first: number, last: number, frame: number) =>
  halfSpeedAround({ first, last }, 24, frame).map((key) => [key.frame, key.source]);

it('a second about a frame takes two, within the range', () => {
  expect(around(1, 240, 100)).toEqual([
    [88, 88],
    [136, 112],
  ]);
  expect(around(1, 240, 1)).toEqual([
    [1, 1],
    [49, 25],
  ]);
  expect(around(1, 240, 240)).toEqual([
    [216, 216],
    [264, 240],
  ]);
  expect(around(1, 11, 5)).toEqual([
    [1, 1],
    [21, 11],
  ]);
});
