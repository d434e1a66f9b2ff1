import { changeRate } from './change-time.js';
import { even, line, shotOf } from '../../../test/shots.js';
import { compilePace } from '../../motion/pace/compile-pace.js';
import { moveKey } from '../../motion/pace/move-key.js';
import { moveKeys, scaleKeys, shiftFrom, drawByHandles, easeKeys } from '../../motion/pace/change-keys.js';
import { parseShot } from '../../document/parse-shot.js';
import type { Rider } from '../../document/shot-rider.js';
import {
  channelLimits,
  channelPace,
  channelValue,
  channelsOf,
  keyChannel,
  withChannelKeys,
} from './channels.js';

const none = { along: 0, side: 0, rise: 0, yaw: 0, pitch: 0, roll: 0 };
const rider = shotOf(
  [line(60)],
  [
    {
      id: 'r',
      name: 'Rider',
      badge: 'R1',
      camera: { focal: 35 },
      attachment: {
        path: 'p',
        pace: even(0, 24),
        facing: { mode: 'aim', target: { point: [0, 0, 9] } },
        offset: { rise: 2 },
        offsetKeys: [
          { ...none, frame: 1, side: 1, rise: 4, ease: 'linear' },
          { ...none, frame: 21, side: 3, rise: 4, ease: 'linear' },
          { ...none, frame: 41, side: 3, rise: 8, ease: 'linear' },
        ],
      },
    },
  ],
).riders[0];
const offsets = ({ attachment }: Rider) =>
  attachment!.offsetKeys.map(({ frame, side, rise }) => [frame, side, rise]);

it('a camera on a path that aims has all channels, a thing at rest none', () => {
  expect(channelsOf(rider)).toEqual([
    'along',
    'side',
    'rise',
    'yaw',
    'pitch',
    'roll',
    'focal',
    'attachment',
    'facing',
    'aim',
  ]);
  expect(channelsOf({ ...rider, attachment: null, camera: null })).toEqual([]);
});

it('one value of an offset is changed; the others come along when its key is moved, and stay as they are', () => {
  const pace = channelPace(rider, 'side');
  const moved = withChannelKeys(rider, 'side', moveKey(pace, 1, 25, 5).keys);
  expect(offsets(moved)).toEqual([
    [1, 1, 4],
    [25, 5, 4],
    [41, 3, 8],
  ]);
  const later = withChannelKeys(rider, 'side', shiftFrom(pace, 1, 10).keys);
  expect(offsets(later).map(([frame]) => frame)).toEqual([1, 31, 51]);
  const scaled = scaleKeys(pace, new Set([0, 1]), { frame: 1, value: 1 }, { frames: 0.5, value: 2 });
  expect(offsets(withChannelKeys(rider, 'side', scaled.keys))).toEqual([
    [1, 1, 4],
    [11, 5, 4],
    [41, 3, 8],
  ]);
});

it('a key more has the value there is, of all the others too', () => {
  expect(channelValue(rider, 'rise')(31)).toBeCloseTo(6, 12);
  expect(offsets(keyChannel(rider, 'side', 31))[2]).toEqual([31, 3, 6]);
  const first = keyChannel(rider, 'focal', 10);
  expect(first.camera?.keys).toEqual([{ frame: 10, value: 35, ease: 'smooth' }]);
  expect(keyChannel(first, 'focal', 10)).toBe(first);
});

it('without its keys an offset is what it was at the first of them', () => {
  expect(withChannelKeys(rider, 'rise', []).attachment).toMatchObject({
    offsetKeys: [],
    offset: { side: 1, rise: 4 },
  });
});

it('what has limits is held within them', () => {
  const two = keyChannel(keyChannel(rider, 'aim', 1), 'aim', 11);
  const up = moveKeys(channelPace(two, 'aim'), new Set([1]), 0, 3);
  expect(
    withChannelKeys(two, 'aim', up.keys).attachment?.facing.aim.influence.map(({ value }) => value),
  ).toEqual([1, 1]);
  expect(channelLimits('focal')).toEqual([1, 10_000]);
});

it('a stretch is drawn by handles, kept in the document, and is the curve it was', () => {
  const keyed = withChannelKeys(rider, 'focal', [
    { frame: 1, value: 20, ease: 'smooth', in: [0, 0], out: [0, 0] },
    { frame: 41, value: 80, ease: 'smooth', in: [0, 0], out: [0, 0] },
  ]);
  const drawn = withChannelKeys(keyed, 'focal', drawByHandles(channelPace(keyed, 'focal'), 0).keys);
  expect(drawn.camera?.keys[0].ease).toBe('handles');
  const shot = shotOf([line(60)], [drawn as never]);
  const kept = parseShot(JSON.parse(JSON.stringify(shot))).riders[0];
  // From rest to rest over 40 frames: 20 + 60 (3 t² − 2 t³), at a quarter 29.375.
  expect(channelValue(kept, 'focal')(11)).toBeCloseTo(29.375, 6);
  expect(
    compilePace(channelPace(kept, 'focal'), 24, { length: 1, closed: false } as never).distance(21),
  ).toBeCloseTo(50, 6);
});

it('one value of an offset is drawn by handles, the others go on by their ease, at any frame rate', () => {
  const drawn = withChannelKeys(rider, 'side', drawByHandles(channelPace(rider, 'side'), 0).keys);
  const bent = withChannelKeys(
    drawn,
    'side',
    channelPace(drawn, 'side').keys.map((key, i) =>
      i === 0 ? { ...key, out: [10, 0] as [number, number] } : key,
    ),
  );
  const shot = parseShot(JSON.parse(JSON.stringify(shotOf([line(60)], [bent as never]))));
  const [kept] = shot.riders;
  expect(kept.attachment?.offsetKeys[0]).toMatchObject({
    ease: 'linear',
    handles: { side: { out: [10, 0] } },
  });
  // x(t) by handles of 10 and of a third of the line from the other end, computed by an independent Bézier.
  const into = kept.attachment!.offsetKeys[1].handles!.side!.in!;
  const bezier = (t: number, a: number, b: number, c: number, d: number) =>
    a * (1 - t) ** 3 + 3 * b * t * (1 - t) ** 2 + 3 * c * t * t * (1 - t) + d * t ** 3;
  for (const t of [0.2, 0.5, 0.9]) {
    const frame = bezier(t, 1, 11, 21 + into[0], 21);
    expect(channelValue(kept, 'side')(frame)).toBeCloseTo(bezier(t, 1, 1, 3 + into[1], 3), 6);
    expect(channelValue(kept, 'rise')(frame)).toBeCloseTo(4, 12);
    const fast = changeRate(shot, 48, 'seconds').riders[0];
    expect(channelValue(fast, 'side')(1 + 2 * (frame - 1))).toBeCloseTo(channelValue(kept, 'side')(frame), 9);
  }
  // Straight again, nothing of it is left.
  const straight = withChannelKeys(
    kept,
    'side',
    easeKeys(channelPace(kept, 'side'), new Set([0]), 'linear').keys,
  );
  expect(straight.attachment?.offsetKeys[0].handles).toBeUndefined();
  expect(() =>
    parseShot({
      ...shot,
      riders: [
        {
          ...kept,
          attachment: { ...kept.attachment, offsetKeys: [{ frame: 1, handles: { side: { out: [1] } } }] },
        },
      ],
    }),
  ).toThrow('handles');
});
