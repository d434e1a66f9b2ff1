import { addStop } from './add-stop.js';

it('stops stand in order, and two at one place are one, as long as the longer', () => {
  const stops = [
    { distance: 10, seconds: 2 },
    { distance: 30, seconds: 1 },
  ];
  expect(addStop({ stops }, { distance: 20, seconds: 3 }).map(({ distance }) => distance)).toEqual([
    10, 20, 30,
  ]);
  expect(addStop({ stops }, { distance: 30.001, seconds: 4 })).toEqual([
    { distance: 10, seconds: 2 },
    { distance: 30, seconds: 4 },
  ]);
  expect(addStop({ stops }, { distance: 10, seconds: 1 })).toEqual(stops);
});
