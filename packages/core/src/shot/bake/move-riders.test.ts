import { even, line, placeOf, poseAt, shotOf, turnOf } from '../../../test/shots.js';
import { removeRider } from '../edits/remove-riders.js';
import { attachToCarrier } from '../edits/attach-to-carrier.js';
import type { Loose } from '../../document/new-shot.js';
import type { Rider } from '../../document/shot-rider.js';
import { evaluateShot } from '../evaluate/evaluate-shot.js';
import { NO_ASSETS } from '../evaluate/scene-assets.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { keysOfRide } from './hand-keys.js';
import { NO_MOVE, moveRiders } from './move-riders.js';
import { withOwnPath } from './own-path.js';

const near = (place: readonly number[], digits = 9) => place.map((value) => expect.closeTo(value, digits));
const cart: Loose<Rider> = { id: 'c', name: 'C', badge: 'C1', attachment: { path: 'p', pace: even(0, 48) } };
const box = (id: string, more: Loose<Rider> = {}): Loose<Rider> => ({
  id,
  name: id,
  badge: id.toUpperCase(),
  ...more,
});

it('moves, turns and sizes several about the first; what one of them carries goes along once', () => {
  const shot = shotOf(
    [],
    [
      box('a', { rest: { translation: [1, 0, 0] } }),
      box('b', { rest: { translation: [3, 0, 0] } }),
      box('d', { parent: 'a', rest: { translation: [0, 1, 0] } }),
    ],
  );
  const moved = moveRiders(shot, NO_ASSETS, ['a', 'b', 'd'], 1, { step: [0, 0, 5], turn: 90, size: 2 });
  const [a, b, d] = moved.riders.map(({ rest }) => rest);
  expect(a.translation).toEqual(near([1, 0, 5]));
  // Two metres to its left, twice as far, and a quarter turn to the left: behind.
  expect(b.translation).toEqual(near([1, 0, 1]));
  expect([a.scale, b.scale, d.scale]).toEqual([
    [2, 2, 2],
    [2, 2, 2],
    [1, 1, 1],
  ]);
  expect(d.translation).toEqual([0, 1, 0]);
  expect(placeOf(poseAt(evaluateShot(moved, NO_ASSETS), 'd', 1))).toEqual(near([1, 1, 5]));
});

it('what looks, sways or is carried is moved by no more than it is dragged by', () => {
  const shot = shotOf(
    [line(60)],
    [
      cart,
      box('t', {
        rest: { translation: [9, 1, 20] },
        restAim: { target: { rider: 'c' } },
        shake: { place: 0.5, turn: 20 },
      }),
      box('s', { parent: 'c', rest: { translation: [0, 2, 0] } }),
    ],
  );
  const moved = moveRiders(shot, NO_ASSETS, ['t', 's'], 31, { ...NO_MOVE, step: [1, 0, 0] });
  expect(moved.riders[1].rest).toEqual({ ...shot.riders[1].rest, translation: near([10, 1, 20]) });
  expect(moved.riders[2].rest.translation).toEqual(near([1, 2, 0]));
});

it('keys by hand come along when their rider is put on a carrier, or its carrier is deleted', () => {
  const keys = [1, 49, 97].map((frame) => ({ frame, translation: [frame / 10, 0, 3] as Vec3 }));
  const free = shotOf([line(60)], [cart, box('k', { transformKeys: { keys } })]);
  const at = (shot: typeof free, frame: number) => placeOf(poseAt(evaluateShot(shot, NO_ASSETS), 'k', frame));
  const seated = attachToCarrier(free, NO_ASSETS, 'k', 'c', 33, true);
  expect(at(seated, 33)).toEqual(near(at(free, 33)));
  expect(at(removeRider(seated, NO_ASSETS, 'c', 65), 65)).toEqual(near(at(seated, 65)));
});

it('what waited for its cue, was handed over and swayed is all in the keys, or the path, that are made of it', () => {
  const cue = {
    id: 'go',
    name: 'Go',
    trigger: { kind: 'distance' as const, rider: 'c' },
    action: { kind: 'start' as const, rider: 'w' },
    keys: [
      { at: 11.99, value: 0, ease: 'hold' as const },
      { at: 12, value: 1, ease: 'hold' as const },
    ],
  };
  const walker = box('w', {
    attachment: { path: 'p', offset: { side: 4 }, pace: even(0, 20) },
    shake: { place: 0.1, turn: 1 },
    parentKeys: [{ frame: 80, rider: 'c', translation: [1, 0, 0], blend: 0.5 }],
  });
  const shot = shotOf([line(60)], [cart, walker], { cues: [cue] });
  const track = (of: typeof shot) => {
    const evaluated = evaluateShot(of, NO_ASSETS);
    return Array.from({ length: 97 }, (_, i) => poseAt(evaluated, 'w', i + 1));
  };
  const before = track(shot);
  const hand = track(keysOfRide(shot, NO_ASSETS, 'w', 0.005));
  const path = track(withOwnPath(shot, NO_ASSETS, 'w', 0.005).shot);
  for (let i = 28; i < 97; i++) {
    expect(Math.hypot(...placeOf(hand[i]).map((value, k) => value - placeOf(before[i])[k]))).toBeLessThan(
      0.006,
    );
    expect(Math.hypot(...placeOf(path[i]).map((value, k) => value - placeOf(before[i])[k]))).toBeLessThan(
      0.011,
    );
    const dot = turnOf(hand[i]).reduce((sum, value, k) => sum + value * turnOf(before[i])[k], 0);
    expect(2 * Math.acos(Math.min(1, Math.abs(dot)))).toBeLessThan(0.006);
  }
});
