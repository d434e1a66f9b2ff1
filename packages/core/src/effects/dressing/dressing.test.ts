import fc from 'fast-check';
import { newShot } from '../../document/new-shot.js';
import type { Dressing } from '../../document/shot-dressing.js';
import { parseShot } from '../../document/parse-shot.js';
import type { Shot } from '../../document/shot.js';
import { evaluateShot } from '../../shot/evaluate/evaluate-shot.js';
import { NO_ASSETS } from '../../shot/evaluate/scene-assets.js';
import { GroundSurface } from '../../geometry/ground/ground-surface.js';
import { POSE } from '../../motion/pose/pose.js';
import { PIECE } from './place-pieces.js';
import { placedDressings } from './placed-dressings.js';
import { profileOfPath } from './profile-of-path.js';

type Fields = Partial<Omit<Dressing, 'offset'>> & { offset?: Partial<Dressing['offset']> };

/** Quarter circles as cubics leave the circle by less than 0.03 %. */
const KAPPA = 0.5522847498;
const circle = (r: number) => ({
  id: 'p',
  name: 'p',
  basis: 'bezier',
  closed: true,
  points: [
    { position: [r, 0, 0], in: [0, 0, -KAPPA * r], out: [0, 0, KAPPA * r] },
    { position: [0, 0, r], in: [KAPPA * r, 0, 0], out: [-KAPPA * r, 0, 0] },
    { position: [-r, 0, 0], in: [0, 0, KAPPA * r], out: [0, 0, -KAPPA * r] },
    { position: [0, 0, -r], in: [-KAPPA * r, 0, 0], out: [KAPPA * r, 0, 0] },
  ],
});
const straight = (points: number[][], roll = 0) => ({
  id: 'p',
  name: 'p',
  basis: 'polyline',
  points: points.map((position) => ({ position, roll })),
});

function shotWith(path: object, laid: Fields): Shot {
  const models = [
    { id: 'tie', name: 'Tie', source: { file: 'tie.glb' } },
    { id: 'post', name: 'Post', source: { file: 'post.glb' } },
  ];
  return parseShot({
    ...newShot({ name: 't' }),
    paths: [path],
    models,
    dressing: [{ id: 'l', name: 'L', path: 'p', model: 'tie', ...laid }],
  });
}
const thing = (path: object, laid: Fields, ground: GroundSurface | null = null) =>
  placedDressings(shotWith(path, laid), ground)[0];
const pieces = (path: object, laid: Fields, ground: GroundSurface | null = null) => {
  const out = thing(path, laid, ground).pieces;
  if (out === null) throw new Error('no pieces');
  return out;
};
const place = ({ places }: { places: Float64Array }, i: number) => [
  ...places.subarray(PIECE.numbers * i, PIECE.numbers * i + 3),
];
const ten = straight([
  [0, 0, 0],
  [0, 0, 10],
]);

describe('pieces', () => {
  it('stand with their middles at even steps, the end included where a step falls on it', () => {
    const laid = pieces(ten, { every: 2.5 });
    expect(laid.count).toBe(5);
    expect([0, 1, 2, 3, 4].map((i) => place(laid, i)[2])).toEqual([0, 2.5, 5, 7.5, 10]);
    expect(pieces(ten, { every: 3 }).count).toBe(4);
    expect(pieces(ten, { every: 0.1 }).count).toBe(101);
  });

  it('fitted, a whole number stands from end to end', () => {
    const laid = pieces(ten, { every: 3, fit: true });
    // 10 m take three steps of 3.333 m.
    expect(laid.count).toBe(4);
    expect(place(laid, 3)[2]).toBeCloseTo(10, 12);
    expect(laid.step).toBeCloseTo(10 / 3, 12);
  });

  it('go round a closed path once and none stands twice in a place', () => {
    const laid = pieces(circle(5), { every: 1, fit: true });
    // 31.4 m round.
    expect(laid.count).toBe(31);
    const gaps = Array.from({ length: 31 }, (_, i) => {
      const [x, , z] = place(laid, i);
      const [u, , w] = place(laid, (i + 1) % 31);
      return Math.hypot(u - x, w - z);
    });
    // Chords of a 31st of a circle.
    for (const gap of gaps) expect(gap).toBeCloseTo(10 * Math.sin(Math.PI / 31), 2);
  });

  it('lie beside the path, on both sides in a mirror, and rise', () => {
    const laid = pieces(ten, { every: 10, both: true, offset: { side: 1.5, rise: 0.25 } });
    expect([0, 1, 2, 3].map((i) => place(laid, i))).toEqual([
      [1.5, 0.25, 0],
      [1.5, 0.25, 10],
      [-1.5, 0.25, 0],
      [-1.5, 0.25, 10],
    ]);
  });

  it('every third is another', () => {
    const laid = pieces(ten, { every: 1, others: [{ model: 'post', every: 3 }] });
    expect([...laid.models]).toEqual([1, 0, 0, 1, 0, 0, 1, 0, 0, 1, 0]);
  });

  it('stray by no more than they may, by their seed alone', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 1e6 }),
        fc.double({ min: 0, max: 2, noNaN: true }),
        (seed, jitter) => {
          const fields = { every: 1, jitter, seed };
          const laid = pieces(ten, fields);
          for (let i = 0; i < laid.count; i++) {
            const [x, y, z] = place(laid, i);
            expect(Math.abs(x)).toBeLessThanOrEqual(jitter);
            expect(Math.abs(z - i)).toBeLessThanOrEqual(jitter + 1e-12);
            expect(y).toBe(0);
          }
          expect(pieces(ten, { ...fields, to: 5 }).places).toEqual(laid.places.slice(0, 6 * PIECE.numbers));
        },
      ),
      { numRuns: 40 },
    );
  });

  it('lean with the path, or hang level, or stand on the ground', () => {
    // 45° up, and rolled.
    const slope = straight(
      [
        [0, 1, 0],
        [0, 11, 10],
      ],
      20,
    );
    const upOf = (laid: ReturnType<typeof pieces>) => {
      const [x, y, z, w] = laid.places.subarray(3, 7);
      return [2 * (x * y - z * w), 1 - 2 * (x * x + z * z), 2 * (y * z + x * w)];
    };
    const leaning = upOf(pieces(slope, { every: 5 }));
    expect(leaning[1]).toBeCloseTo(Math.cos(Math.PI / 4) * Math.cos((20 * Math.PI) / 180), 9);
    expect(upOf(pieces(slope, { every: 5, stand: 'level' }))[1]).toBeCloseTo(1, 12);
    const ground = new GroundSurface({
      positions: Float64Array.from([-50, 0.5, -50, 50, 0.5, -50, 50, 0.5, 50, -50, 0.5, 50]),
      indices: Uint32Array.from([0, 2, 1, 0, 3, 2]),
    });
    const standing = pieces(slope, { every: 5, stand: 'ground', offset: { side: 0, rise: 0.1 } }, ground);
    for (let i = 0; i < standing.count; i++) expect(place(standing, i)[1]).toBeCloseTo(0.6, 9);
    expect(upOf(standing)[1]).toBeCloseTo(1, 12);
  });
});

describe('a profile', () => {
  const band: Fields = {
    kind: 'profile',
    profile: [
      [1, 0],
      [-1, 0],
    ],
  };

  it('lies at its radius round a circle, and looks up', () => {
    const swept = thing(circle(20), { ...band, offset: { side: 3, rise: 0.4 } }).swept;
    if (!swept) throw new Error('nothing swept');
    const radii = new Set<number>();
    for (let i = 0; i < swept.positions.length; i += 3) {
      expect(swept.positions[i + 1]).toBeCloseTo(0.4, 12);
      expect(swept.normals[i + 1]).toBeCloseTo(1, 6);
      radii.add(Math.round(10 * Math.hypot(swept.positions[i], swept.positions[i + 2])) / 10);
    }
    // From +X towards +Z it goes round to the right, seen from above: left is outside.
    expect([...radii].sort((a, b) => a - b)).toEqual([22, 24]);
    // Chords leave the curve by 2 mm at the most: the area is that of the ring.
    let area = 0;
    const p = swept.positions;
    for (let t = 0; t < swept.indices.length; t += 3) {
      const [a, b, c] = [0, 1, 2].map((k) => 3 * swept.indices[t + k]);
      area += ((p[b] - p[a]) * (p[c + 2] - p[a + 2]) - (p[c] - p[a]) * (p[b + 2] - p[a + 2])) / 2;
    }
    // Corners that go round to the left seen from above have their upper side up.
    expect(area).toBeLessThan(0);
    expect(Math.abs(area) / (Math.PI * (24 ** 2 - 22 ** 2))).toBeCloseTo(1, 3);
  });

  it('has its texture in metres, and no more sections than it takes', () => {
    const swept = thing(ten, band).swept;
    if (!swept) throw new Error('nothing swept');
    const us = [...swept.uvs].filter((_, i) => i % 2 === 0);
    const vs = [...swept.uvs].filter((_, i) => i % 2 === 1);
    expect([Math.min(...us), Math.max(...us)]).toEqual([0, 2]);
    expect([Math.min(...vs), Math.max(...vs)]).toEqual([0, 10]);
    expect(new Set(vs).size).toBe(6);
  });

  it('a ring with caps is whole: every edge is met by two triangles, and its volume is that of the bar', () => {
    const swept = thing(ten, {
      kind: 'profile',
      ring: true,
      profile: [
        [0.5, 1],
        [-0.5, 1],
        [-0.5, 0],
        [0.5, 0],
      ],
    }).swept;
    if (!swept) throw new Error('nothing swept');
    const { positions: p, indices } = swept;
    let volume = 0;
    const edges = new Map<string, number>();
    const corner = (i: number) => [0, 1, 2].map((k) => Math.round(1e6 * p[3 * i + k])).join();
    for (let t = 0; t < indices.length; t += 3) {
      const [a, b, c] = [0, 1, 2].map((k) => [...p.subarray(3 * indices[t + k], 3 * indices[t + k] + 3)]);
      volume +=
        (a[0] * (b[1] * c[2] - b[2] * c[1]) +
          a[1] * (b[2] * c[0] - b[0] * c[2]) +
          a[2] * (b[0] * c[1] - b[1] * c[0])) /
        6;
      for (let k = 0; k < 3; k++) {
        const [from, to] = [corner(indices[t + k]), corner(indices[t + ((k + 1) % 3)])];
        edges.set(`${from} ${to}`, (edges.get(`${from} ${to}`) ?? 0) + 1);
      }
    }
    // Positive where all corners go round to the left as seen from outside.
    expect(volume).toBeCloseTo(10, 9);
    for (const [edge, times] of edges)
      expect([times, edges.get(edge.split(' ').reverse().join(' '))]).toEqual([1, 1]);
  });

  it('laid as ground, what stands on the ground stands on it', () => {
    const shot = shotWith(
      straight([
        [0, 4, 0],
        [0, 4, 10],
      ]),
      { ...band, ground: true, offset: { side: 0, rise: 0.3 } },
    );
    const rider = {
      id: 'r',
      name: 'R',
      attachment: {
        path: 'p',
        pace: { unit: 'metres', keys: [{ frame: 1, value: 2 }] },
        ground: { mode: 'stick' },
      },
    };
    const pose = new Float64Array(POSE.size);
    const heightIn = (document: object) => {
      evaluateShot(parseShot(document), NO_ASSETS).poses[0](1, pose, 0);
      return pose[1];
    };
    expect(heightIn({ ...shot, riders: [rider] })).toBeCloseTo(4.3, 9);
    expect(heightIn({ ...shot, dressing: [], riders: [rider] })).toBeCloseTo(4, 9);
  });

  it('of a slab that is ground its upper side is stood on, however near the lower one is', () => {
    const slab: Fields = { kind: 'profile', ring: true, ground: true, offset: { side: 0, rise: 0.2 } };
    const shot = shotWith(ten, {
      ...slab,
      profile: [
        [1, 0.5],
        [-1, 0.5],
        [-1, 0],
        [1, 0],
      ],
    });
    const pace = { unit: 'metres', keys: [{ frame: 1, value: 5 }] };
    const rider = { id: 'r', name: 'R', attachment: { path: 'p', pace, ground: { mode: 'stick' } } };
    const pose = new Float64Array(POSE.size);
    evaluateShot(parseShot({ ...shot, riders: [rider] }), NO_ASSETS).poses[0](1, pose, 0);
    expect(pose[1]).toBeCloseTo(0.7, 9);
  });

  it('refuses one of a single point', () => {
    expect(() => shotWith(ten, { kind: 'profile', profile: [[0, 0]] })).toThrow(
      /dressing\[0\]\.profile.*1 points.*two at least/,
    );
  });
});

it('a drawing becomes a profile: as on paper, on the ground, as wide as asked for', () => {
  const shot = parseShot({
    ...newShot({ name: 't' }),
    paths: [
      {
        id: 'd',
        name: 'd',
        basis: 'polyline',
        closed: true,
        // A slope that is high at the left of the paper; down is +Z.
        points: [
          [10, 0, 40],
          [10, 0, 10],
          [50, 0, 30],
          [50, 0, 40],
        ].map((position) => ({ position })),
      },
    ],
  });
  expect(profileOfPath(shot.paths[0], 2)).toEqual({
    ring: true,
    profile: [
      [1, 0],
      [1, 1.5],
      [-1, 0.5],
      [-1, 0],
    ],
  });
  const round = profileOfPath(shotWith(circle(3), {}).paths[0], 1);
  for (const [x, y] of round.profile) expect(Math.hypot(x, y - 0.5)).toBeCloseTo(0.5, 2);
});
