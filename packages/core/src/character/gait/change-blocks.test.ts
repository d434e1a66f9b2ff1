import { addBlock, beginBlock, endBlock, moveBlock } from './change-blocks.js';

const two = addBlock(addBlock([], 'wave', 49, 24), 'walk', 1, 24);
const spans = (blocks: typeof two) => blocks.map(({ frame, until }) => [frame, until]);
const clip = { fps: 24, seconds: 2 };

it('blocks stand in order, no two of them begin together', () => {
  expect(two.map(({ clip: name }) => name)).toEqual(['walk', 'wave']);
  expect(spans(addBlock(two, 'sit', 49, 10))).toEqual([
    [1, 25],
    [49, 73],
    [50, 60],
  ]);
});

it('one is moved, but not past its neighbours', () => {
  expect(spans(moveBlock(two, 0, 12))).toEqual([
    [13, 37],
    [49, 73],
  ]);
  expect(spans(moveBlock(two, 0, 100))[0]).toEqual([48, 72]);
  expect(spans(moveBlock(two, 1, -100))[1]).toEqual([2, 26]);
});

it('one that begins later plays less of its clip; brought back, it plays it again, and not more than there is', () => {
  const later = beginBlock(two, 1, 61, clip);
  expect(later[1]).toMatchObject({ frame: 61, until: 73, from: 0.5 });
  expect(beginBlock(later, 1, 55, clip)[1].from).toBeCloseTo(0.25, 12);
  expect(beginBlock(later, 1, 30, clip)[1]).toMatchObject({ frame: 30, from: 0 });
  expect(beginBlock(two, 1, 500, clip)[1]).toMatchObject({ frame: 72, until: 73 });
});

it('one ends a frame after it begins, at least', () => {
  expect(endBlock(two, 0, 90)[0].until).toBe(90);
  expect(endBlock(two, 0, -5)[0].until).toBe(2);
});
