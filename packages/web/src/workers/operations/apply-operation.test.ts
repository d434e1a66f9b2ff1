import { compilePath, newShot, type Pace } from '@fleet-rail/core';
import { applyOperation } from './apply-operation';

const path = {
  id: 'p',
  name: 'P',
  basis: 'through' as const,
  points: (
    [
      [0, 0, 0],
      [0, 0, 20],
      [15, 0, 25],
      [24, 0, 12],
      [24, 0, 2],
    ] as const
  ).map((position) => ({
    position: [...position] as [number, number, number],
  })),
};
const closed = (keys: Partial<Pace['keys'][number]>[], unit: Pace['unit'], bridge: boolean) => {
  const shot = newShot({
    name: 't',
    paths: [path],
    riders: [{ id: 'r', name: 'R', attachment: { path: 'p', pace: { unit, keys: keys as Pace['keys'] } } }],
  });
  const after = applyOperation(shot, { path: 'p', kind: 'close', bridge, tension: 1 }, () => 0);
  const pace = after.riders[0].attachment?.pace as Pace;
  const lengths = [shot, after].map(({ paths }) => compilePath(paths[0]).length);
  return { values: pace.keys.map(({ value }) => value), lengths };
};

describe.each([true, false])('a path that is closed, by a bridge %s', (bridge) => {
  it('a ride to its end runs to its end still: once round', () => {
    expect(
      closed(
        [
          { frame: 1, value: 0 },
          { frame: 97, value: 1 },
        ],
        'laps',
        bridge,
      ).values,
    ).toEqual([0, expect.closeTo(1, 9)]);
    const [open] = closed([{ frame: 1, value: 0 }], 'metres', bridge).lengths;
    const run = closed(
      [
        { frame: 1, value: 0 },
        { frame: 97, value: open },
      ],
      'metres',
      bridge,
    );
    expect(run.lengths[1]).toBeGreaterThan(run.lengths[0] + 5);
    expect(run.values[1]).toBeCloseTo(run.lengths[1], 6);
  });

  it('a ride that ends before that ends where it did', () => {
    const run = closed(
      [
        { frame: 1, value: 3 },
        { frame: 97, value: 30 },
      ],
      'metres',
      bridge,
    );
    expect(run.values).toEqual([expect.closeTo(3, 3), expect.closeTo(30, 3)]);
  });
});
