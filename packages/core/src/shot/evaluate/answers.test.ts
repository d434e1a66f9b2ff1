import { switchCarrier } from '../edits/switch-carrier.js';
import { removeRider } from '../edits/remove-riders.js';
import { NO_ASSETS } from './scene-assets.js';
import { even, line, placeOf, poseAt, runs, shotOf } from '../../../test/shots.js';
import { parseShot } from '../../document/parse-shot.js';
import type { Loose } from '../../document/new-shot.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import { distance3 } from '../../geometry/math/vec.js';
import { checkShot } from '../../check/check-shot.js';
import { scene } from '../../../test/carts.js';
import { POSE } from '../../motion/pose/pose.js';
import { evaluateShot } from './evaluate-shot.js';

// A cart that travels 12 m in two seconds, stops from frame 49 to 73, and goes on.
const cart: Loose<Rider> = {
  id: 'c',
  name: 'Cart',
  badge: 'C1',
  attachment: {
    path: 'p',
    pace: {
      keys: [
        { frame: 1, value: 0 },
        { frame: 49, value: 12 },
        { frame: 73, value: 12 },
        { frame: 121, value: 24 },
      ],
    },
  },
};
const walker: Loose<Rider> = {
  id: 'w',
  name: 'Walker',
  badge: 'W2',
  attachment: { path: 'q', pace: even(0, 2, 1, 25) },
};
const paths = [line(60), { ...runs([3, 0, 12], [1, 0, 12]), id: 'q', name: 'Q' }];
const go = (on: object, at: number) => ({
  id: 'go',
  name: 'Go',
  trigger: on as never,
  action: { kind: 'start' as const, rider: 'w' },
  keys: [
    { at: at - 0.001, value: 0, ease: 'hold' as const },
    { at, value: 1, ease: 'hold' as const },
  ],
});
const timed = (cues: object[], riders = [cart, walker]): Shot =>
  shotOf(paths, riders, { range: { first: 1, last: 121 }, cues: cues as never });
const begins = (shot: Shot): number => {
  const evaluated = evaluateShot(shot, NO_ASSETS);
  for (let frame = 1; frame <= 121; frame += 0.25)
    if (poseAt(evaluated, 'w', frame)[POSE.distance] > 1e-6) return frame;
  return NaN;
};

it.each([
  ['when a stop begins', { kind: 'stop', rider: 'c' }, 0, 49],
  ['half a second after that', { kind: 'stop', rider: 'c' }, 0.5, 61],
  ['when it ends', { kind: 'stop', rider: 'c', from: 'end' }, 0, 73],
  ['at a speed', { kind: 'speed', rider: 'c' }, 6, 1],
])('a rider sets off %s', (_, on, at, frame) => {
  expect(begins(timed([go(on, at)]))).toBeCloseTo(frame + 0.25, 0);
});

it('a cue listens to another, through as many as there are; in a circle it is refused', () => {
  const first = {
    ...go({ kind: 'stop', rider: 'c' }, 0.25),
    id: 'a',
    name: 'A',
    action: { kind: 'start', rider: 'x' },
  };
  const still = { id: 'x', name: 'X', badge: 'X3', attachment: { path: 'p', pace: even(0, 1) } };
  const second = go({ kind: 'cue', cue: 'a' }, 0.75);
  expect(begins(timed([first, second], [cart, walker, still as Loose<Rider>]))).toBeCloseTo(73.25, 0);
  const circle = [
    { ...first, trigger: { kind: 'cue', cue: 'go' } },
    { ...second, trigger: { kind: 'cue', cue: 'a' } },
  ];
  expect(() => timed(circle, [cart, walker, still as Loose<Rider>])).toThrow('A → Go → A');
  expect(() => timed([go({ kind: 'cue', cue: 'b' }, 0)])).toThrow('no cue "b"');
  // Cues that listen to a deleted cue go too.
  const left = removeRider(timed([first, second], [cart, walker, still as Loose<Rider>]), NO_ASSETS, 'x', 1);
  expect(left.cues).toEqual([]);
});

it('a stop that never is keeps waiting, and is told of once however much the cue would do', () => {
  const never = {
    ...go({ kind: 'stop', rider: 'c', stop: 3 }, 0),
    moreActions: [{ kind: 'start', rider: 'v' }],
  };
  const second = { ...walker, id: 'v', name: 'V', badge: 'V4' };
  const shot = timed([never], [cart, walker, second]);
  expect(begins(shot)).toBeNaN();
  const findings = checkShot(evaluateShot(shot, NO_ASSETS), scene());
  expect(findings.filter(({ kind }) => kind === 'cue-never')).toHaveLength(1);
  // A cue's actions on several riders are told apart when one of them is deleted.
  const one = removeRider(shot, NO_ASSETS, 'w', 1);
  expect(one.cues).toMatchObject([{ action: { rider: 'v' }, moreActions: [] }]);
});

it('it waits until the cart has stopped, walks to it, sits on it without a jump, and gets off', () => {
  const walks = timed(
    [go({ kind: 'stop', rider: 'c' }, 0)],
    [
      {
        ...cart,
        attachment: {
          ...cart.attachment,
          pace: { keys: [...(cart.attachment?.pace?.keys ?? []).slice(0, 3), { frame: 121, value: 30 }] },
        },
      } as Loose<Rider>,
      walker,
    ],
  );
  const seated = switchCarrier(walks, NO_ASSETS, 'w', 'c', 73);
  const shot = switchCarrier(seated, NO_ASSETS, 'w', null, 110, 0.25);
  expect(parseShot(JSON.parse(JSON.stringify(shot)))).toEqual(shot);
  const evaluated = evaluateShot(shot, NO_ASSETS);
  const at = (id: string, frame: number) => placeOf(poseAt(evaluated, id, frame));
  // It reaches the cart's side, a metre off, with the end of the stop.
  expect(at('w', 72.999)[0]).toBeCloseTo(1, 2);
  expect(distance3(at('w', 73), at('w', 72.999))).toBeLessThan(0.005);
  for (let frame = 73; frame < 110; frame += 3) {
    const [w, c] = [at('w', frame), at('c', frame)];
    expect(w.map((value, k) => value - c[k])).toEqual([1, 0, 0].map((value) => expect.closeTo(value, 6)));
    expect(poseAt(evaluated, 'w', frame)[POSE.speed]).toBeCloseTo(
      poseAt(evaluated, 'c', frame)[POSE.speed],
      9,
    );
  }
  // Within a quarter of a second it is back where its own way has it, without a leap in between.
  for (let frame = 110; frame < 116; frame++)
    expect(distance3(at('w', frame + 1), at('w', frame))).toBeLessThan(5);
  expect(at('w', 116)).toEqual([1, 0, 12].map((value) => expect.closeTo(value, 6)));
  expect(() => switchCarrier(shot, NO_ASSETS, 'c', 'w', 80)).toThrow('in no circle');
});
