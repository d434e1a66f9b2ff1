import fc from 'fast-check';
import { CART_AXLES, HIERARCHIES, MODELS, cart, oneBox, scene } from '../../test/carts.js';
import { shotOf, waves } from '../../test/shots.js';
import type { Loose } from '../document/new-shot.js';
import type { Rider } from '../document/shot-rider.js';
import { withAttachment, withRider } from '../shot/edits/change-rider.js';
import type { Shot } from '../document/shot.js';
import { evaluateShot } from '../shot/evaluate/evaluate-shot.js';
import type { SceneAssets } from '../shot/evaluate/scene-assets.js';
import type { Vec3 } from '../geometry/math/vec.js';
import { checkShot } from './check-shot.js';

// Set-ups of a careful animator: gentle rings on gentle ground, driven vehicles and flyers well above it, each on its
// own ring.

const hills = (x: number, z: number) => 0.6 * Math.sin(x / 14) * Math.cos(z / 16);
const ground = waves(hills, 80, 1);
const bird = oneBox([0, 0, 0], [0.8, 0.3, 1]);
const assets: SceneAssets = {
  ground,
  hierarchies: new Map([...HIERARCHIES, ['bird', bird.hierarchy]]),
  physics: null,
};
const plain = scene();
const set = {
  ...plain,
  models: new Map([
    ...plain.models,
    [
      'bird',
      {
        mesh: bird.mesh,
        rig: { wheels: [], steering: { node: null, axis: '+z' as const }, body: null, ball: null },
      },
    ],
  ]),
};

interface Ring {
  readonly radius: number;
  readonly squash: number;
  readonly kind: 'cart' | 'bird';
  readonly start: number;
  readonly speed: number;
}

const ring = fc.record({
  squash: fc.double({ min: 0.85, max: 1.15, noNaN: true }),
  kind: fc.constantFrom('cart' as const, 'bird' as const),
  start: fc.double({ min: 0, max: 40, noNaN: true }),
  speed: fc.double({ min: 2, max: 7, noNaN: true }),
});
const rings = fc
  .array(ring, { minLength: 1, maxLength: 4 })
  // Rings of different sizes, so that none comes near another.
  .map((list) => list.map((one, i): Ring => ({ ...one, radius: 16 + 12 * i })));

function sound(list: readonly Ring[]): Shot {
  const path = ({ radius, squash, kind }: Ring, i: number) => ({
    id: `p${i}`,
    name: `P${i}`,
    basis: 'through' as const,
    closed: true,
    points: Array.from({ length: 16 }, (_, k) => {
      const [x, z] = [radius * Math.cos((k * Math.PI) / 8), squash * radius * Math.sin((k * Math.PI) / 8)];
      return { position: [x, hills(x, z) + (kind === 'bird' ? 6 : 0), z] as Vec3 };
    }),
  });
  const rider = ({ kind, start, speed }: Ring, i: number): Loose<Rider> => ({
    id: `r${i}`,
    name: `R${i}`,
    badge: `R${i}`,
    ...(kind === 'cart' ? { ...cart, chassis: CART_AXLES } : { kind: 'creature' as const, model: 'bird' }),
    attachment: {
      path: `p${i}`,
      anchor: kind === 'cart' ? 'rearAxle' : 'origin',
      ground: kind === 'cart' ? { mode: 'stick', up: 2, down: 2 } : {},
      bank: kind === 'bird' ? { mode: 'physical', window: 4 } : {},
      pace: {
        keys: [
          { frame: 1, value: start },
          { frame: 97, value: start + 4 * speed },
        ],
      },
    },
  });
  return shotOf(list.map(path), list.map(rider), {
    models: [...MODELS, { id: 'bird', name: 'bird', source: { file: 'bird.glb' } }],
    ground: { model: 'crate' },
  });
}

const findings = (shot: Shot) => checkShot(evaluateShot(shot, assets), set);

it('sound set-ups are not accused', () => {
  fc.assert(
    fc.property(rings, (list) => {
      expect(findings(sound(list)).map(({ message }) => message)).toEqual([]);
    }),
    { numRuns: 40 },
  );
});

/** One fault of one rider, and the finding that must result. */
const SPOILS: readonly [string, (shot: Shot, id: string) => Shot, (kind: Ring['kind']) => string | null][] = [
  [
    'sunk',
    (shot, id) =>
      withAttachment(shot, id, (attachment) => ({
        ...attachment,
        ground: { ...attachment.ground, rise: -0.5 },
        offset: { ...attachment.offset, rise: attachment.ground.mode === 'stick' ? 0 : -8 },
      })),
    () => 'under-ground',
  ],
  [
    'turned round',
    (shot, id) =>
      withAttachment(shot, id, (attachment) => ({
        ...attachment,
        offset: { ...attachment.offset, yaw: 180 },
      })),
    (kind) => (kind === 'bird' ? 'tail-first' : null),
  ],
  [
    'without its wheels',
    (shot, id) => withRider(shot, id, (rider) => ({ ...rider, wheels: [] })),
    (kind) => (kind === 'cart' ? 'wheels-still' : null),
  ],
  [
    'stopped dead',
    (shot, id) =>
      withAttachment(shot, id, (attachment) => ({
        ...attachment,
        pace: {
          ...attachment.pace,
          keys: [
            attachment.pace.keys[0],
            { ...attachment.pace.keys[1], frame: 49 },
            { ...attachment.pace.keys[1], frame: 60 },
          ],
        },
      })),
    () => 'jolt',
  ],
];

it('one thing that is put wrong is found of the rider it is wrong with, and of no other', () => {
  fc.assert(
    fc.property(rings, fc.nat(), fc.constantFrom(...SPOILS), (list, which, [, spoil, expected]) => {
      const i = which % list.length;
      const kind = expected(list[i].kind);
      if (kind === null) return;
      const found = findings(spoil(sound(list), `r${i}`));
      expect([...new Set(found.map(({ rider }) => rider))]).toEqual([`r${i}`]);
      expect(found.map((finding) => finding.kind)).toContain(kind);
    }),
    { numRuns: 60 },
  );
});
