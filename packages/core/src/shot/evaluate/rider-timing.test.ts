import fc from 'fast-check';
import type { Shot } from '../../document/shot.js';
import type { Loose } from '../../document/new-shot.js';
import type { Pace } from '../../document/shot-pace.js';
import { mapFrames } from '../../motion/timing/map-frames.js';
import { evaluateShot } from './evaluate-shot.js';
import { NO_ASSETS } from './scene-assets.js';
import { line, shotOf } from '../../../test/shots.js';

type Cues = Loose<Shot>['cues'];

/** Cues that start a rider at a frame, and end one of its stops at another. */
const start = (go: number) => ({
  id: 'go',
  name: 'Go',
  trigger: { kind: 'frame' as const },
  action: { kind: 'start' as const, rider: 'r' },
  keys: [{ at: go, value: 1, ease: 'hold' as const }],
});
const goOn = (stop: number, at: number) => ({
  id: `stop-${stop}`,
  name: 'Go on',
  trigger: { kind: 'frame' as const },
  action: { kind: 'stopEnd' as const, rider: 'r', stop },
  keys: [
    { at: at - 1, value: 0, ease: 'hold' as const },
    { at, value: 1, ease: 'hold' as const },
  ],
});
/** From 0 at a frame to 1 from another on. */
const late = (go: number) => ({
  ...start(go),
  keys: [{ at: go - 1, value: 0, ease: 'hold' as const }, ...start(go).keys],
});

const timed = (pace: Loose<Pace>, cues: Cues, retimes: Loose<Shot>['retimes'] = []) =>
  evaluateShot(
    shotOf([line(1000)], [{ id: 'r', name: 'R', attachment: { path: 'p', pace } }], {
      range: { first: 1, last: 300 },
      cues,
      retimes,
    }),
    NO_ASSETS,
  );

/** Speeds by frame that begin at frame 20: 6 m/s until frame 100, nothing until 148, then 3 m/s. */
const speeds = {
  mode: 'speed' as const,
  start: { frame: 20, value: 0 },
  speeds: [
    { frame: 20, speed: 6, ease: 'hold' as const },
    { frame: 100, speed: 0, ease: 'hold' as const },
    { frame: 148, speed: 3, ease: 'hold' as const },
  ],
};

it('speeds that wait for a start cue are shown where they play: later by as much as it waits', () => {
  const evaluated = timed(speeds, [late(39)]);
  const [rider] = evaluated.shot.riders;
  const timing = evaluated.timing(rider);
  expect(timing?.begins).toBe(20);
  const { shown, own } = mapFrames(timing?.steps ?? [], evaluated.shot.range);
  // 19 frames later, all of it.
  expect([20, 100, 148].map((frame) => shown(frame))).toEqual([39, 119, 167]);
  expect([39, 119, 167].map((frame) => own(frame))).toEqual([20, 100, 148]);
  expect(timing?.stops).toEqual([{ from: 119, to: 167, distance: 20 }]);
  // And that is where the rider is seen to stop.
  const motion = evaluated.motion(rider);
  expect([39, 79, 119, 150, 167, 191].map((frame) => motion?.distance(frame))).toEqual(
    [0, 10, 20, 20, 20, 23].map((v) => expect.closeTo(v, 9)),
  );
});

it('one mapping says where the motion is: shown and own frames go into each other, cues and retimes together', () => {
  const keys = {
    keys: [
      { frame: 10, value: 0 },
      { frame: 60, value: 20 },
      { frame: 90, value: 20 },
      { frame: 140, value: 50 },
    ],
  };
  fc.assert(
    fc.property(
      fc.integer({ min: 2, max: 60 }),
      fc.integer({ min: 62, max: 200 }),
      fc.double({ min: 0.3, max: 3, noNaN: true }),
      fc.boolean(),
      (go, end, rate, slow) => {
        // A stop that ends as it begins is not seen, and has no way back.
        fc.pre(end > go + 52);
        const evaluated = timed(
          keys,
          [late(go), goOn(0, end)],
          slow
            ? [
                {
                  riders: ['r'],
                  keys: [
                    { frame: 30, source: 30, ease: 'linear' },
                    { frame: 130, source: 30 + 100 * rate },
                  ],
                },
              ]
            : [],
        );
        const [rider] = evaluated.shot.riders;
        const { shown, own } = mapFrames(evaluated.timing(rider)?.steps ?? [], evaluated.shot.range);
        const motion = evaluated.motion(rider);
        for (const frame of [10, 35, 60, 120, 140]) {
          const at = shown(frame);
          if (at === null) continue;
          expect(own(at)).toBeCloseTo(frame, 6);
        }
        const distanceOf = (frame: number) =>
          frame <= 10
            ? 0
            : frame < 60
              ? (frame - 10) * 0.4
              : frame <= 90
                ? 20
                : Math.min(50, 20 + (frame - 90) * 0.6);
        for (const frame of [1, 30, 77.5, 130, 250])
          expect(motion?.distance(frame)).toBeCloseTo(distanceOf(own(frame)), 6);
      },
    ),
    { numRuns: 60 },
  );
});

it('what never comes is not shown, and a stop that never ends is open', () => {
  const never = timed(speeds, [{ ...start(20), keys: [{ at: 1, value: 0 }] }]);
  const waiting = never.timing(never.shot.riders[0]);
  const { shown } = mapFrames(waiting?.steps ?? [], never.shot.range);
  expect([20, 100].map((frame) => shown(frame))).toEqual([20, null]);
  const stays = timed(speeds, [{ ...goOn(0, 120), keys: [{ at: 1, value: 0 }] }]);
  expect(stays.timing(stays.shot.riders[0])?.stops).toEqual([{ from: 100, to: Infinity, distance: 20 }]);
});

it('one that waits for ever for its start stands there, whatever would end its first stop', () => {
  const pace: Loose<Pace> = {
    keys: [
      { frame: 18, value: 0, ease: 'hold' },
      { frame: 50, value: 1, ease: 'linear' },
      { frame: 90, value: 2 },
    ],
  };
  const never = { ...start(1), keys: [{ at: -5, value: 0.2 }] };
  const evaluated = timed(pace, [never, goOn(0, 30)]);
  const motion = evaluated.motion(evaluated.shot.riders[0]);
  for (let frame = 1; frame <= 300; frame += 7) expect([frame, motion?.distance(frame)]).toEqual([frame, 0]);
});
