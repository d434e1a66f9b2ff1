import { passedMarks } from './passed-marks';

const path = {
  marks: [
    { id: 'gate', name: 'Gate', distance: 30 },
    { id: 'barn', name: 'Barn', distance: 80 },
  ],
};
const told = (closed: boolean, low: number, high: number) =>
  passedMarks(path, { closed, length: 100 }, [low, high]).map(({ mark, lap, at }) => [mark.id, lap, at]);

it('a mark is passed once on an open path, and in every lap of a round, also where a ride goes back', () => {
  expect(told(false, -250, 250)).toEqual([
    ['gate', 0, 30],
    ['barn', 0, 80],
  ]);
  expect(told(true, -150, 50)).toEqual([
    ['barn', -2, -120],
    ['gate', -1, -70],
    ['barn', -1, -20],
    ['gate', 0, 30],
  ]);
  expect(told(true, 100, 200)).toEqual([
    ['gate', 1, 130],
    ['barn', 1, 180],
  ]);
});

it('of thousands of laps the first forty are told, of a path without a curve its marks as they are', () => {
  expect(told(true, -100, 1e6)).toHaveLength(80);
  expect(passedMarks(path, undefined, [0, 50]).map(({ at }) => at)).toEqual([30]);
  expect(passedMarks(undefined, undefined, [0, 50])).toEqual([]);
});
