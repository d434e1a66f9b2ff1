// More planted faults: leaps, quick cycles, rides that go on, what is behind a ridge.
import { about, type Planted } from './planted-fault.js';
import { camera, crate, high, rider, vehicle } from './riders.js';
import { even, line, waves } from './shots.js';

/** Level, but for a ridge along Z. */
const RIDGE = waves((x) => Math.max(0, 10 - Math.abs(x - 30)), 100, 2.5);

export const PLANTED_LATER: readonly Planted[] = [
  {
    kind: 'jolt',
    paths: [line(40)],
    // Half a metre aside for a single frame.
    riders: [
      crate({
        pace: even(0, 40),
        offsetKeys: [
          { frame: 1, ease: 'hold' },
          { frame: 49, side: 0.5, ease: 'hold' },
          { frame: 50, ease: 'hold' },
        ],
      }),
    ],
    said: { figure: about(0.5, 1e-6), unit: 'm', from: 49, to: 50 },
    cures: [],
  },
  {
    kind: 'jolt',
    paths: [line(40)],
    // 8 cm up from one frame to the next.
    riders: [
      crate({
        pace: even(0, 40),
        offsetKeys: [
          { frame: 60, ease: 'hold' },
          { frame: 61, rise: 0.08, ease: 'hold' },
        ],
      }),
    ],
    ground: null,
    said: { figure: about(0.08, 1e-6), unit: 'm', frame: 61 },
    cures: [],
  },
  {
    kind: 'fast-cycle',
    paths: [line(40)],
    riders: [
      rider(
        { pace: even(0, 40) },
        { model: 'cart', kind: 'prop', cycles: [{ node: 'body', rate: 12, amplitude: 20 }] },
      ),
    ],
    said: { severity: 'warning', part: 'body', figure: about(0.5, 1e-9) },
    cures: [],
  },
  {
    kind: 'fast-cycle',
    paths: [line(40)],
    // The clip of a second runs 15 times a second: 0.625 times a frame.
    riders: [
      rider(
        { pace: even(0, 40) },
        {
          model: 'walker',
          kind: 'prop',
          clips: [{ clip: 'walk', frame: 20, until: 60, rate: 15 }],
        },
      ),
    ],
    said: { severity: 'warning', part: 'walk', figure: about(0.625, 1e-9) },
    cures: [],
  },
  {
    kind: 'tail-first',
    paths: [line(40)],
    // Slower than what backs, but it never does anything else.
    riders: [vehicle({ pace: even(8, 0) })],
    said: { severity: 'note', figure: about(2, 1e-6) },
    cures: ['Turn it around', 'Face where it goes'],
  },
  {
    kind: 'hidden',
    paths: [high(2, 2)],
    riders: [camera({ facing: { mode: 'aim', target: { point: [60, 2, 20] } } })],
    // A ridge of 10 m between them.
    ground: RIDGE,
    said: { other: null, figure: about(97 / 24, 0.06), unit: 's' },
    cures: [],
  },
  {
    kind: 'not-over',
    paths: [line(40)],
    // At 6 m/s the 40 m take 160 frames of 24 a second.
    riders: [crate({ pace: { mode: 'speed', speeds: [{ frame: 1, speed: 6 }] } })],
    said: { severity: 'note', figure: about(16, 1e-6), unit: 'm', from: 97, to: about(161, 1) },
    cures: ['Make the range 161 frames'],
  },
  {
    kind: 'not-over',
    paths: [line(40)],
    riders: [crate({ pace: even(0, 40) })],
    // Three quarters as fast, at the last frame it is where it was to be at 73; after that time runs normally, 24
    // frames more.
    rest: {
      retimes: [
        {
          riders: ['r'],
          keys: [
            { frame: 1, source: 1 },
            { frame: 97, source: 73 },
          ],
        },
      ],
    },
    said: { severity: 'note', figure: about(10, 0.1), unit: 'm', to: about(121, 1) },
    cures: ['Make the range 121 frames'],
  },
];
