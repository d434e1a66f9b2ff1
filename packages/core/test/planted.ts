// One planted fault of each kind, on its own; not part of what core gives.
import { MODELS, CART_AXLES, HIERARCHIES, boxMesh, cart, scene } from './carts.js';
import { BROKEN_BRIDGE, S_BEND, camera, crate, high, rider, standing, vehicle, walker } from './riders.js';
import { circle, even, line, runs, shotOf, slope } from './shots.js';
import { testWalker } from './walker.js';
import type { Shot } from '../src/document/shot.js';
import type { CheckScene } from '../src/check/check-scene.js';
import type { SceneAssets } from '../src/shot/evaluate/scene-assets.js';
import type { Vec3 } from '../src/geometry/math/vec.js';
import { about, type Planted } from './planted-fault.js';
import { PLANTED_LATER } from './planted-later.js';

const FLAT = slope(0, 0);
const GROUND = { model: 'crate' };

export const PLANTED: readonly Planted[] = [
  {
    kind: 'no-curve',
    paths: [{ id: 'p', name: 'P', points: [{ position: [0, 0, 0] }] }],
    riders: [crate()],
    said: { severity: 'fault', path: 'p' },
    cures: [],
  },
  {
    kind: 'loose-end',
    paths: [line(40)],
    riders: [camera({ facing: { mode: 'aim' } })],
    said: { severity: 'warning', part: 'target' },
    cures: [],
  },
  {
    kind: 'missing-model',
    paths: [line(40)],
    riders: [vehicle({}, { steering: { node: 'helm' } })],
    said: { part: 'helm' },
    cures: [],
  },
  {
    kind: 'cue-never',
    paths: [line(40)],
    riders: [
      crate(),
      { ...crate(), id: 'q', badge: 'Q2', attachment: { path: 'p', offset: { side: 3 }, pace: even(0, 40) } },
    ],
    rest: {
      cues: [
        {
          id: 'c',
          name: 'Go',
          trigger: { kind: 'distance', rider: 'r' },
          action: { kind: 'start', rider: 'q' },
          keys: [
            { at: -1e6, value: 0, ease: 'hold' },
            { at: 500, value: 1 },
          ],
        },
      ],
    },
    said: { severity: 'fault', rider: 'q', part: 'Go' },
    cures: ['Switch the cue off'],
  },
  {
    kind: 'past-end',
    paths: [line(40)],
    riders: [crate({ pace: even(0, 44) })],
    said: { figure: about(4, 1e-9), unit: 'm', frame: 97 },
    cures: ['Reach the end'],
  },
  {
    kind: 'never-moves',
    paths: [line(40)],
    riders: [crate({ pace: { start: { value: 7 } } })],
    said: { severity: 'note', distance: 7 },
    cures: ['Send it along the path'],
  },
  {
    kind: 'kink',
    paths: [runs([0, 0, 0], [0, 0, 20], [14, 0, 34])],
    riders: [crate({ pace: even(0, 39) })],
    // 20 m of 39 in 96 frames: the corner is passed after 49.2.
    said: { figure: about(45, 1e-6), distance: about(20, 1e-9), frame: 51 },
    cures: ['Round the corners'],
  },
  {
    kind: 'rough',
    paths: [line(40)],
    riders: [
      crate({
        offsetKeys: Array.from({ length: 13 }, (_, i) => ({ frame: 40 + 2 * i, yaw: i % 2 === 0 ? 0 : 6 })),
      }),
    ],
    said: { part: 'heading', figure: about(6, 0.1) },
    cures: [],
  },
  {
    kind: 'rough',
    paths: [
      runs(...Array.from({ length: 41 }, (_, i): Vec3 => [i > 10 && i < 30 ? (i % 2) * 0.06 : 0, 0, i])),
    ],
    riders: [crate({ pace: even(0, 40) })],
    rest: { checks: { limits: { corner: 20 } } },
    said: { part: 'heading' },
    cures: ['Smooth the path'],
  },
  {
    kind: 'jolt',
    paths: [line(40)],
    riders: [
      crate({
        pace: {
          keys: [
            { frame: 1, value: 0 },
            { frame: 49, value: 8 },
            { frame: 97, value: 24 },
          ],
        },
      }),
    ],
    // From 4 to 8 m/s within a twenty-fourth of a second.
    said: { figure: about((4 * 24) / 9.81, 0.1), from: 49, to: 49 },
    cures: ['Ease the keys', 'Drive within limits'],
  },
  {
    kind: 'grip',
    paths: [circle(20, true)],
    riders: [vehicle({ pace: even(0, 80), anchor: 'rearAxle' })],
    // v² / R = 400 / 20 m/s²
    said: { figure: about(20 / 9.81, 1e-3), unit: 'g' },
    cures: ['Slow into the bend'],
  },
  {
    kind: 'flip',
    paths: [S_BEND],
    riders: [crate({ pace: even(0, 15.7), bank: { mode: 'amount', amount: 40, limit: 80, window: 0 } })],
    ground: null,
    // 40° at a curvature of 0.1, 80° at that of 5 m, of which a cubic has 4 % less at its ends: to the left, then to the right.
    said: { severity: 'fault', figure: about(157, 4), distance: about(7.85, 0.2) },
    cures: ['Bank more calmly'],
  },
  {
    kind: 'flip',
    paths: [line(40)],
    riders: [
      crate({
        offsetKeys: [
          { frame: 1, ease: 'hold' },
          { frame: 49, yaw: 90 },
        ],
      }),
    ],
    said: { severity: 'fault', from: 49, to: 49, figure: about(90, 1e-6) },
    cures: [],
  },
  {
    kind: 'tail-first',
    paths: [line(40)],
    riders: [crate({ pace: even(40, 0) }, { kind: 'creature' })],
    said: { figure: about(10, 1e-6), from: 1, to: 96 },
    cures: ['Turn it around', 'Face where it goes'],
  },
  {
    kind: 'under-ground',
    paths: [high(0, 0, -1, 0, 0)],
    riders: [crate()],
    rest: { checks: { limits: { corner: 20 } } },
    said: { severity: 'fault', figure: about(1, 0.1), unit: 'm', frame: about(49, 1) },
    cures: ['Lift the path', 'Ride higher'],
  },
  {
    kind: 'under-ground',
    paths: [high(-0.4, -0.4)],
    riders: [vehicle()],
    said: { severity: 'fault', figure: about(0.4, 1e-6), from: 1, to: 97 },
    cures: ['Stick to the ground'],
  },
  {
    kind: 'off-ground',
    paths: [high(0.5, 0.5)],
    riders: [vehicle()],
    said: { severity: 'warning', figure: about(0.5, 1e-6), from: 1, to: 97 },
    cures: ['Stick to the ground'],
  },
  {
    kind: 'level-jump',
    paths: [high(4, 4)],
    riders: [crate({ ground: { mode: 'stick', up: 1, down: 5 } })],
    ground: BROKEN_BRIDGE,
    said: { severity: 'fault', figure: about(4, 0.5), frame: about(44, 3) },
    cures: ['Keep to its level'],
  },
  {
    kind: 'overlap',
    paths: [line(40), { ...runs([-20, 0, 20], [20, 0, 20]), id: 'q', name: 'Q' }],
    riders: [crate(), { ...crate({ path: 'q', pace: even(0, 40) }), id: 's', badge: 'S2' }],
    // Both are at the crossing in the middle: halves of a metre each way meet from frame 47.8 to 50.2, sides on.
    said: { rider: 'r', other: 's', figure: about(1, 0.05), frame: 49 },
    cures: ['Start S2 later', 'Start R1 later'],
  },
  {
    kind: 'overlap',
    paths: [line(40), { ...runs([-396, 0, 20], [410, 0, 20]), id: 'q', name: 'Q' }],
    // 200 m/s: 8.3 m a frame, through the other between two of them.
    riders: [crate(), { ...crate({ path: 'q', pace: even(0, 800) }), id: 's', badge: 'S2' }],
    rest: { checks: { limits: { swing: 90 } } },
    said: { rider: 'r', other: 's' },
    cures: ['Start S2 sooner', 'Start R1 later'],
  },
  {
    kind: 'through-set',
    paths: [line(40)],
    riders: [crate()],
    staticSet: boxMesh([0, 1, 20], [4, 2, 0.1]),
    said: { rider: 'r', frame: about(49, 2), unit: 'm' },
    cures: ['Keep clear'],
  },
  {
    kind: 'through-set',
    paths: [line(40)],
    riders: [camera()],
    staticSet: boxMesh([0, 0, 20.2], [4, 2, 0.02]),
    ground: null,
    said: { rider: 'r', from: 49, to: 49 },
    cures: ['Keep clear'],
  },
  {
    kind: 'feet-slide',
    paths: [circle(4, true)],
    riders: [walker({ plant: false })],
    said: { unit: 'mm' },
    cures: ['Lock its feet to the ground'],
  },
  {
    kind: 'feet-under',
    paths: [line(40)],
    // Stopped in mid-stride, its walk is blended into standing: both legs are straighter between the two than in either.
    riders: [
      walker(
        { plant: false, idle: 'stand', blend: 0.5 },
        {
          pace: {
            keys: [
              { frame: 1, value: 0 },
              { frame: 49, value: 2.55 },
              { frame: 97, value: 2.55 },
            ],
          },
        },
      ),
    ],
    rest: { checks: { limits: { feetSlide: 0.3, joltOnFoot: 4 } } },
    said: { unit: 'mm', frame: about(55, 6) },
    cures: ['Lock its feet to the ground'],
  },
  {
    kind: 'out-of-reach',
    paths: [line(40)],
    // Three times the stride of its clip: a foot in stance for six tenths of a cycle would have to reach over 2.16 m;
    // its legs are 1 m.
    riders: [walker({ plant: true, stride: 3.6 }, { pace: even(0, 12) })],
    said: { unit: 'mm' },
    cures: ['Use the stride of its clip'],
  },
  {
    kind: 'steps-quick',
    paths: [line(40)],
    riders: [walker({ plant: false }, { pace: even(0, 9.6) })],
    // 2.4 m/s over 1.2 m a cycle of two steps.
    said: { figure: about(4, 0.01), unit: 'steps/s' },
    cures: ['Walk more slowly'],
  },
  {
    kind: 'wheels-still',
    paths: [line(40)],
    riders: [rider({}, { kind: 'vehicle', model: 'cart' })],
    said: { figure: 4, severity: 'warning' },
    cures: ['Use the found wheels'],
  },
  {
    kind: 'radius-off',
    paths: [line(40)],
    riders: [
      vehicle(
        {},
        {
          wheels: cart.wheels.map((wheel) => ({
            ...wheel,
            radius: 0.44,
            centre: [wheel.centre[0], 0.44, wheel.centre[2]],
          })),
        },
      ),
    ],
    said: { severity: 'note', figure: about(0.1, 1e-9) },
    cures: ['Measure the wheels'],
  },
  {
    kind: 'wheel-slide',
    paths: [circle(20, true)],
    riders: [
      vehicle(
        { pace: even(0, 32), anchor: 'origin' },
        {
          chassis: { ...CART_AXLES, frontAxle: 0, rearAxle: -2 },
          wheels: cart.wheels.map((wheel) => ({
            ...wheel,
            centre: [wheel.centre[0], 0.4, wheel.centre[2] - 2],
          })),
        },
      ),
    ],
    // 2 m behind what is on a circle of 20 m at 8 m/s: 2 / 20 · 8.
    said: { figure: about(0.8, 0.02), unit: 'm/s' },
    cures: ['Ride on the other axle'],
  },
  {
    kind: 'fast-wheel',
    paths: [line(400)],
    riders: [vehicle({ pace: even(0, 160) })],
    // 40 m/s: 1.667 m a frame of 2.513 m round.
    said: { severity: 'note', figure: about(160 / 96 / (0.8 * Math.PI), 1e-6) },
    cures: [],
  },
  {
    kind: 'seam',
    paths: [circle(10, true)],
    riders: [crate({ pace: { unit: 'laps', ...even(0, 0.9, 1, 98) } })],
    rest: { loop: true },
    said: {
      severity: 'fault',
      part: 'place',
      unit: 'm',
      figure: about(2 * 10 * Math.sin(0.1 * Math.PI), 1e-6),
    },
    cures: ['Whole laps'],
  },
  {
    kind: 'doubled-frame',
    paths: [circle(10, true)],
    riders: [crate({ pace: { unit: 'laps', ...even(0, 1, 1, 97) } })],
    rest: { loop: true },
    said: { severity: 'fault', frame: 97 },
    cures: ['Move the key past the last frame', 'End the shot a frame sooner'],
  },
  {
    kind: 'near',
    paths: [line(40)],
    riders: [camera({ offset: { rise: 0.5 } }), standing([1, 0, 20])],
    // The crate's side is half a metre beside the lane.
    said: { rider: 'r', other: 's', figure: about(0.5, 1e-6), frame: about(49, 2) },
    cures: ['Keep a distance'],
  },
  {
    kind: 'camera-under-ground',
    paths: [high(2, 2, -3, 2, 2)],
    riders: [camera()],
    rest: { checks: { limits: { corner: 60 } } },
    // Of 42.36 m the lowest place is after 21.18.
    said: { figure: about(3, 0.05), frame: 52 },
    cures: ['Keep clear of the ground', 'Lift the path', 'Ride higher'],
  },
  {
    kind: 'out-of-frame',
    paths: [high(2, 2)],
    riders: [camera({ facing: { mode: 'aim', target: { point: [30, 2, 20] }, aim: { yawLimit: 20 } } })],
    said: { unit: 'of half the picture' },
    cures: ['Remove the turn limits'],
  },
  {
    kind: 'hidden',
    paths: [high(2, 2)],
    riders: [camera({ facing: { mode: 'aim', target: { point: [30, 2, 20] } } })],
    staticSet: boxMesh([15, 2, 20], [0.2, 6, 10]),
    ground: null,
    // Behind a wall half as far away as the target: for 20 m of the way, 48 frames and the one it ends with.
    said: { other: null, figure: about(49 / 24, 0.06), unit: 's' },
    cures: [],
  },
  ...PLANTED_LATER,
];

/** A planted fault as a shot with its assets and check scene. */
export function plantedScene({ paths, riders, rest, ground, staticSet }: Planted): {
  readonly shot: Shot;
  readonly assets: SceneAssets;
  readonly set: CheckScene;
} {
  const shot = shotOf(paths, riders, {
    models: [...MODELS, { id: 'walker', name: 'walker', source: { file: 'walker.glb' } }],
    ground: ground === null ? {} : GROUND,
    ...rest,
  });
  const hierarchies = new Map([...HIERARCHIES, ['walker', testWalker()] as const]);
  return {
    shot,
    assets: { ground: ground === undefined ? FLAT : ground, hierarchies, physics: null },
    set: scene(staticSet),
  };
}
