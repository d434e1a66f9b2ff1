import { swapEnds } from '../pace/change-keys.js';
import { evaluateShot } from '../../shot/evaluate/evaluate-shot.js';
import { NO_ASSETS } from '../../shot/evaluate/scene-assets.js';
import type { Loose } from '../../document/new-shot.js';
import type { Attachment } from '../../document/shot-attachment.js';
import { circle, even, line, noseOf, placeOf, poseAt, shotOf } from '../../../test/shots.js';

const travelling = (attachment: Loose<Attachment>, path = line(100)) =>
  evaluateShot(
    shotOf(
      [path],
      [
        {
          id: 'r',
          name: 'R',
          attachment: { path: 'p', ...attachment, facing: { along: 'travel', ...attachment.facing } },
        },
      ],
    ),
    NO_ASSETS,
  );

/** The unit way a rider goes at a frame, from where it is before and after. */
function wayAt(evaluated: ReturnType<typeof travelling>, frame: number) {
  const [a, b] = [frame - 1e-3, frame + 1e-3].map((at) => placeOf(poseAt(evaluated, 'r', at)));
  const way = b.map((value, k) => value - a[k]);
  const size = Math.hypot(...way);
  return way.map((value) => value / size);
}

const near = (a: readonly number[], b: readonly number[]) =>
  a.forEach((value, k) => expect(value).toBeCloseTo(b[k], 4));

it('with its ends swapped it goes nose first, and along its path as it always did', () => {
  const pace = even(0, 90);
  for (const path of [line(100), circle(20)]) {
    const along = travelling({ pace }, path);
    const plain = travelling({ pace, facing: { along: 'path' } }, path);
    const back = travelling({ pace: swapEnds(along.shot.riders[0].attachment!.pace) }, path);
    for (const frame of [5, 30, 80]) {
      near(noseOf(poseAt(along, 'r', frame)), noseOf(poseAt(plain, 'r', frame)));
      near(noseOf(poseAt(back, 'r', frame)), wayAt(back, frame));
    }
  }
});

it('its nose goes where keyed offsets take it: aside, and up', () => {
  const evaluated = travelling({
    pace: even(0, 40),
    offsetKeys: [
      { frame: 1, side: 0, rise: 0 },
      { frame: 49, side: 6, rise: 2 },
      { frame: 97, side: -3, rise: 0 },
    ],
  });
  for (const frame of [10, 25, 49, 60, 90])
    near(noseOf(poseAt(evaluated, 'r', frame)), wayAt(evaluated, frame));
});

describe('one that stops and goes back', () => {
  const keys = [
    { frame: 1, value: 10 },
    { frame: 31, value: 40 },
    { frame: 55, value: 40 },
    { frame: 97, value: 5 },
  ];
  const yawAt = (evaluated: ReturnType<typeof travelling>, frame: number) => {
    const [x, , z] = noseOf(poseAt(evaluated, 'r', frame));
    return (Math.atan2(x, z) * 180) / Math.PI;
  };

  it('keeps its way while it stands, and turns round over the moment that is set', () => {
    for (const turnTime of [0.25, 0.5, 1]) {
      const evaluated = travelling({ pace: { keys }, facing: { turnTime } });
      for (const frame of [20, 31, 40, 54.9]) expect(yawAt(evaluated, frame)).toBeCloseTo(0, 5);
      const over = turnTime * 24;
      // To the left, half-way round half-way through.
      expect(yawAt(evaluated, 55 + over / 2)).toBeCloseTo(90, 2);
      for (const frame of [55 + over + 0.01, 95])
        expect(Math.abs(yawAt(evaluated, frame))).toBeCloseTo(180, 3);
    }
  });

  it('does so wherever it is asked first', () => {
    const evaluated = travelling({ pace: { keys } });
    const late = yawAt(evaluated, 60);
    expect(yawAt(travelling({ pace: { keys } }), 60)).toBe(late);
    // A rider that is stopped at first faces the direction of its start.
    const waits = travelling({
      pace: {
        keys: [
          { frame: 20, value: 50 },
          { frame: 97, value: 5 },
        ],
      },
    });
    expect(Math.abs(yawAt(waits, 1))).toBeCloseTo(180, 5);
  });
});
