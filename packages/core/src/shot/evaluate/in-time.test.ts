import { NO_ASSETS } from './scene-assets.js';
import { changeRate, scaleToFit } from '../edits/change-time.js';
import { newShot, type Loose } from '../../document/new-shot.js';
import type { Shot } from '../../document/shot.js';
import { POSE } from '../../motion/pose/pose.js';
import { shownAt, type Retiming } from '../../motion/timing/retiming.js';
import { evaluateShot } from './evaluate-shot.js';
import { mapFrames } from '../../motion/timing/map-frames.js';

const keys = [
  { frame: 1, value: 0 },
  { frame: 49, value: 24 },
  { frame: 73, value: 24 },
  { frame: 121, value: 48 },
];

/** Two riders on a straight of 100 m: one that stops for a second, and one that follows its own keys. */
const shotWith = (parts: Loose<Omit<Shot, 'format' | 'version'>>): Shot =>
  newShot({
    name: 't',
    range: { first: 1, last: 240 },
    paths: [
      { id: 'p', name: 'P', basis: 'polyline', points: [{ position: [0, 0, 0] }, { position: [0, 0, 100] }] },
    ],
    riders: [
      { id: 'a', name: 'Ann', attachment: { path: 'p', pace: { keys } } },
      {
        id: 'b',
        name: 'Ben',
        attachment: {
          path: 'p',
          offset: { side: 3 },
          pace: {
            keys: [
              { frame: 1, value: 0 },
              { frame: 25, value: 6 },
            ],
          },
        },
      },
    ],
    ...parts,
  });
const at = (shot: Shot, rider: number, frame: number) => {
  const pose = new Float64Array(POSE.size);
  evaluateShot(shot, NO_ASSETS).poses[rider](frame, pose, 0);
  return { distance: pose[POSE.distance], speed: pose[POSE.speed] };
};

describe('retimes', () => {
  const slow = {
    keys: [
      { frame: 13, source: 13, ease: 'linear' as const },
      { frame: 37, source: 25, ease: 'linear' as const },
    ],
  };

  it('half speed over a stretch, and then as it was, later', () => {
    const shot = shotWith({ retimes: [slow] });
    for (const rider of [0, 1]) {
      expect(at(shot, rider, 25).distance).toBeCloseTo(at(shotWith({}), rider, 19).distance, 10);
      expect(at(shot, rider, 25).speed).toBeCloseTo(at(shotWith({}), rider, 19).speed / 2, 10);
      expect(at(shot, rider, 60).distance).toBeCloseTo(at(shotWith({}), rider, 48).distance, 10);
    }
  });

  it('of some riders leaves the others alone; one that is off plays nothing', () => {
    const shot = shotWith({ retimes: [{ ...slow, riders: ['b'] }] });
    expect(at(shot, 0, 25)).toEqual(at(shotWith({}), 0, 25));
    expect(at(shot, 1, 25).distance).toBeCloseTo(at(shotWith({}), 1, 19).distance, 10);
    expect(at(shotWith({ retimes: [{ ...slow, off: true }] }), 1, 20)).toEqual(at(shotWith({}), 1, 20));
  });

  it('a freeze stands, smooth ends run on at their own rate, and a source is found where it is shown', () => {
    const freeze = [20, 44].map((frame) => ({ frame, source: 20, ease: 'linear' as const }));
    const shot = shotWith({ retimes: [{ keys: freeze }] });
    expect(at(shot, 0, 30)).toEqual({ distance: expect.closeTo(9.5, 10), speed: 0 });
    const ramp = [
      { frame: 10, source: 10, ease: 'smooth' as const },
      { frame: 50, source: 30, ease: 'smooth' as const },
    ];
    const { retiming } = evaluateShot(shotWith({ retimes: [{ keys: ramp }] }), NO_ASSETS) as {
      retiming: Retiming;
    };
    expect([retiming.rate(10), retiming.rate(50 - 1e-6)]).toEqual([
      expect.closeTo(1, 9),
      expect.closeTo(1, 4),
    ]);
    const shown = shownAt(retiming, 22, 1, 240) as number;
    expect(retiming.source(shown)).toBeCloseTo(22, 9);
  });
});

describe('cues', () => {
  it('another starts when the first has come 12 m', () => {
    const shot = shotWith({
      cues: [
        {
          id: 'go',
          name: 'Go',
          trigger: { kind: 'distance', rider: 'a' },
          action: { kind: 'start', rider: 'b' },
          keys: [
            { at: 0, value: 0, ease: 'hold' },
            { at: 12, value: 1 },
          ],
        },
      ],
    });
    // 12 m at 12 m/s from frame 1 on: frame 25. Its own ride began at frame 1.
    expect(evaluateShot(shot, NO_ASSETS).moment(shot.cues[0])).toBeCloseTo(25, 9);
    expect(at(shot, 1, 24)).toEqual({ distance: 0, speed: 0 });
    expect(at(shot, 1, 37)).toEqual({ distance: expect.closeTo(3, 9), speed: expect.closeTo(6, 9) });
  });

  it('a stop lasts until the other is near, and what follows comes later; or sooner', () => {
    const until = (frame: number) =>
      shotWith({
        cues: [
          {
            id: 'on',
            name: 'On',
            trigger: { kind: 'frame' },
            action: { kind: 'stopEnd', rider: 'a', stop: 0 },
            keys: [
              { at: frame - 1, value: 0, ease: 'hold' },
              { at: frame, value: 1 },
            ],
          },
        ],
      });
    for (const [frame, shift] of [
      [97, 24],
      [61, -12],
    ]) {
      expect(at(until(frame), 0, frame - 0.5)).toEqual({ distance: 24, speed: 0 });
      expect(at(until(frame), 0, 100).distance).toBeCloseTo(at(shotWith({}), 0, 100 - shift).distance, 9);
    }
    expect(at(until(500), 0, 240)).toEqual({ distance: 24, speed: 0 });
  });

  it('keys are shown where they play: later where they wait, at another frame where time is bent', () => {
    const wait = {
      id: 'on',
      name: 'On',
      trigger: { kind: 'frame' as const },
      action: { kind: 'stopEnd' as const, rider: 'a', stop: 0 },
      keys: [
        { at: 96, value: 0, ease: 'hold' as const },
        { at: 97, value: 1 },
      ],
    };
    const slow = [1, 241].map((frame) => ({ frame, source: (frame + 1) / 2, ease: 'linear' as const }));
    const shots = [
      shotWith({ cues: [wait] }),
      shotWith({ cues: [{ ...wait, action: { kind: 'start', rider: 'a' } }] }),
      shotWith({ cues: [wait], retimes: [{ keys: slow }] }),
    ];
    const shown = shots.map((shot) => {
      const timing = evaluateShot(shot, NO_ASSETS).timing(shot.riders[0]);
      const frames = mapFrames(timing?.steps ?? [], shot.range);
      keys.slice(1).forEach(({ frame, value }) => {
        const at = frames.shown(frame) as number;
        const pose = new Float64Array(POSE.size);
        evaluateShot(shot, NO_ASSETS).poses[0](at, pose, 0);
        // The rider is where the key says when it is shown, and the frame is found back.
        expect(pose[POSE.distance]).toBeCloseTo(value, 6);
        expect(frames.own(at + 1e-6)).toBeCloseTo(frame, 4);
      });
      return keys.slice(1).map(({ frame }) => frames.shown(frame));
    });
    expect(shown).toEqual(
      [
        [49, 97, 145],
        [145, 169, 217],
        // Twice as late until frame 241, and after it as much later.
        [97, 193, 265],
      ].map((frames) => frames.map((frame) => expect.closeTo(frame, 6))),
    );
  });

  it('a part opens through a curve as two riders come near', () => {
    const shot = shotWith({
      cues: [
        {
          id: 'gate',
          name: 'Gate',
          trigger: { kind: 'gap', rider: 'a', other: 'b' },
          action: { kind: 'turn', rider: 'b', node: 'leaf', axis: '+y' },
          keys: [
            { at: 3, value: 0, ease: 'linear' },
            { at: 13, value: 90 },
          ],
        },
      ],
    });
    const [part] = evaluateShot(shot, NO_ASSETS).gauges(shot.riders[1]);
    const [a, b] = [at(shot, 0, 30).distance, at(shot, 1, 30).distance];
    const gap = Math.hypot(3, a - b);
    expect(part.value(30)).toBeCloseTo((gap - 3) * 9, 9);
    expect(part).toMatchObject({ kind: 'cue', part: 'leaf' });
  });

  it('in a circle are refused by name', () => {
    const start = (id: string, rider: string, on: string) => ({
      id,
      name: id,
      trigger: { kind: 'distance' as const, rider: on },
      action: { kind: 'start' as const, rider },
      keys: [{ at: 5, value: 1 }],
    });
    expect(() => shotWith({ cues: [start('one', 'b', 'a'), start('two', 'a', 'b')] })).toThrow(
      /cues\[\d\]\.trigger.*(Ann → Ben → Ann|Ben → Ann → Ben)/s,
    );
  });
});

describe('the shot’s time', () => {
  const drive = { mode: 'drive' as const, drive: { top: 5 }, start: { frame: 1, value: 0 } };
  const shot = shotWith({});
  const driven = { ...shot, riders: shot.riders.map((rider) => rider) };
  driven.riders[1] = shotWith({
    riders: [shot.riders[0], { id: 'b', name: 'Ben', attachment: { path: 'p', pace: drive } }],
  }).riders[1];

  it('another rate keeps the seconds, or the frames', () => {
    const seconds = changeRate(driven, 48, 'seconds');
    const frames = changeRate(driven, 48, 'frames');
    expect([seconds.range.last, frames.range.last]).toEqual([480, 240]);
    for (const rider of [0, 1]) {
      expect(at(seconds, rider, 81).distance).toBeCloseTo(at(driven, rider, 41).distance, 9);
      expect(at(seconds, rider, 81).speed).toBeCloseTo(at(driven, rider, 41).speed, 9);
      expect(at(frames, rider, 41).distance).toBeCloseTo(at(driven, rider, 41).distance, 8);
      expect(at(frames, rider, 41).speed).toBeCloseTo(2 * at(driven, rider, 41).speed, 8);
    }
  });

  it('scaled to another range it is the same work, slower', () => {
    const long = scaleToFit(driven, { first: 11, last: 489 });
    for (const rider of [0, 1]) {
      expect(at(long, rider, 91).distance).toBeCloseTo(at(driven, rider, 41).distance, 8);
      expect(at(long, rider, 91).speed).toBeCloseTo(at(driven, rider, 41).speed / 2, 8);
    }
  });
});
