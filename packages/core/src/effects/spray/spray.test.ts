import { newShot } from '../../document/new-shot.js';
import { parseShot } from '../../document/parse-shot.js';
import type { Emitter } from '../../document/shot-emitter.js';
import { evaluateShot } from '../../shot/evaluate/evaluate-shot.js';
import { NO_ASSETS } from '../../shot/evaluate/scene-assets.js';
import { writeCsv } from '../../formats/csv-write.js';
import { PARTICLE, aliveAt, mostAlive, particleAt, type Spray } from './spray.js';

/** A rider that goes 2 m/s along +Z for 4 s, and sprays. */
function evaluated(emitter: Partial<Emitter>, shot: object = {}, rider: object = {}) {
  return evaluateShot(
    parseShot({
      ...newShot({ name: 't' }),
      fps: 10,
      range: { first: 1, last: 41 },
      paths: [
        { id: 'p', name: 'p', basis: 'polyline', points: [{ position: [0, 1, 0] }, { position: [0, 1, 8] }] },
      ],
      ...shot,
      riders: [
        {
          id: 'r',
          name: 'R',
          attachment: {
            path: 'p',
            pace: {
              unit: 'metres',
              keys: [
                { frame: 1, value: 0 },
                { frame: 41, value: 8 },
              ],
            },
          },
          ...rider,
          emitter: { rate: 10, life: 1, spread: 0, speed: 3, ...emitter },
        },
      ],
    }),
    NO_ASSETS,
  );
}

function sprayOf(...of: Parameters<typeof evaluated>): Spray {
  const shot = evaluated(...of);
  const spray = shot.spray(shot.shot.riders[0]);
  if (spray === null) throw new Error('nothing is sprayed');
  return spray;
}

function placeOf(spray: Spray, n: number, age: number): number[] {
  const out = new Float64Array(PARTICLE.numbers);
  particleAt(spray, n, age, out);
  return [...out.subarray(0, 3)];
}

it('particle n is born at n / rate seconds where the emitter is then, and lives as long as it may', () => {
  const spray = sprayOf({});
  // 0 … 4 s.
  expect(spray.count).toBe(41);
  expect(placeOf(spray, 7, 0)).toEqual([
    expect.closeTo(0, 12),
    expect.closeTo(1, 12),
    expect.closeTo(1.4, 9),
  ]);
  const alive = aliveAt(spray, 2.05).map(({ n, age }) => [n, Number(age.toFixed(9))]);
  expect(alive).toEqual(Array.from({ length: 10 }, (_, i) => [11 + i, Number((0.95 - 0.1 * i).toFixed(9))]));
  expect(mostAlive(spray)).toBe(10);
});

it('flies as thrown: speed upward, gravity and what it takes along', () => {
  const spray = sprayOf({ gravity: 1, inherit: 0.5 });
  const t = 0.8;
  const [x, y, z] = placeOf(spray, 10, t);
  expect(x).toBeCloseTo(0, 9);
  expect(y).toBeCloseTo(1 + 3 * t - (9.80665 / 2) * t * t, 9);
  // Half of 2 m/s, from where it was after a second.
  expect(z).toBeCloseTo(2 + t, 6);
});

it('drag stops it after speed / drag metres, and lets it fall no faster than g / drag', () => {
  const still = { attachment: null };
  const up = sprayOf({ drag: 2, life: 40 }, {}, still);
  expect(placeOf(up, 0, 40)[1]).toBeCloseTo(3 / 2, 9);
  const falling = sprayOf({ drag: 2, life: 40, speed: 0, gravity: 1 }, {}, still);
  const speed = placeOf(falling, 0, 20)[1] - placeOf(falling, 0, 21)[1];
  expect(speed).toBeCloseTo(9.80665 / 2, 9);
  // Next to none is none.
  const free = sprayOf({ gravity: 1 }, {}, still);
  const hardly = sprayOf({ gravity: 1, drag: 1e-9 }, {}, still);
  expect(placeOf(hardly, 0, 0.9)[1]).toBeCloseTo(placeOf(free, 0, 0.9)[1], 8);
});

it('stays in its cone, and fills it evenly', () => {
  const spray = sprayOf({ spread: 30, rate: 1000, speed: 1 }, {}, { attachment: null });
  let within = 0;
  for (let n = 0; n < spray.count; n++) {
    const [x, y, z] = placeOf(spray, n, 1);
    expect(Math.hypot(x, y, z)).toBeCloseTo(1, 9);
    expect(y).toBeGreaterThanOrEqual(Math.cos(Math.PI / 6) - 1e-12);
    if (y > Math.cos(Math.PI / 12)) within++;
  }
  // The part of the cap of 30° that lies within 15°.
  const part = (1 - Math.cos(Math.PI / 12)) / (1 - Math.cos(Math.PI / 6));
  expect(within / spray.count).toBeCloseTo(part, 1);
});

it('by distance, one each 1 / rate metres whatever the pace', () => {
  const pace = {
    unit: 'metres',
    keys: [
      { frame: 1, value: 0, ease: 'smooth' },
      { frame: 41, value: 8 },
    ],
  };
  const spray = sprayOf({ by: 'distance', rate: 4 }, {}, { attachment: { path: 'p', pace } });
  expect(spray.count).toBe(32);
  for (let n = 0; n < 32; n++) expect(placeOf(spray, n, 0)[2]).toBeCloseTo(n / 4, 2);
});

it('only while it moves: none of a rider that stands', () => {
  const stands = {
    attachment: {
      path: 'p',
      pace: {
        unit: 'metres',
        keys: [
          { frame: 1, value: 0 },
          { frame: 21, value: 4, ease: 'hold' },
          { frame: 41, value: 4 },
        ],
      },
    },
  };
  // Two of the four seconds.
  const { count } = sprayOf({ when: 'moving' }, {}, stands);
  expect([20, 21]).toContain(count);
  expect(sprayOf({ when: 'sliding' }, {}, stands).count).toBe(0);
});

it('sprays from the wheels in turn, where they touch', () => {
  const wheel = (x: number) => ({ node: `w${x}`, centre: [x, 0.4, 0], radius: 0.4 });
  const spray = sprayOf({ from: 'wheels' }, {}, { attachment: null, wheels: [wheel(1), wheel(-1)] });
  expect([0, 1, 2].map((n) => placeOf(spray, n, 0))).toEqual([
    [1, 0, 0],
    [-1, 0, 0],
    [1, 0, 0],
  ]);
});

it('bursts at a frame and when a cue acts', () => {
  const cue = {
    id: 'c',
    name: 'C',
    trigger: { kind: 'distance', rider: 'r' },
    action: { kind: 'facing', rider: 'r' },
    keys: [
      { at: 3.9, value: 0 },
      { at: 4, value: 1 },
    ],
  };
  const spray = sprayOf(
    {
      rate: 0,
      bursts: [
        { frame: 11, count: 5, cue: null },
        { frame: 1, count: 7, cue: 'c' },
      ],
    },
    { cues: [cue] },
  );
  expect(spray.count).toBe(12);
  expect(aliveAt(spray, 0.99)).toHaveLength(0);
  expect(aliveAt(spray, 1)).toHaveLength(5);
  // It has come 4 m after 2 s.
  expect(aliveAt(spray, 2.01)).toHaveLength(7);
});

it('one that is hidden sprays nothing; what it sprayed flies on', () => {
  const hides = {
    id: 'c',
    name: 'C',
    trigger: { kind: 'frame' },
    action: { kind: 'show', rider: 'r' },
    keys: [
      { at: 1, value: 1, ease: 'hold' },
      { at: 21, value: 0 },
    ],
  };
  const shot = evaluated({}, { cues: [hides] });
  const spray = shot.spray(shot.shot.riders[0]) as Spray;
  // Two seconds of four.
  expect(spray.count).toBe(20);
  expect(aliveAt(spray, 2.45)).toHaveLength(5);
  const rows = writeCsv(shot)
    .split('\n')
    .filter((row) => row.startsWith('25,'));
  // At 2.4 s those born from 1.5 s on.
  expect(rows.map((row) => row.split(',')[3])).toEqual(
    Array.from({ length: 5 }, (_, i) => `particle ${16 + i}`),
  );
});

it('a loop closes: those of the cycle before are alive at the first frame', () => {
  const shot = { loop: true, range: { first: 1, last: 40 } };
  const spray = sprayOf({ life: 1.5 }, shot);
  const at = (seconds: number) => aliveAt(spray, seconds).map(({ n, age }) => `${n} ${age.toFixed(6)}`);
  expect(at(0).length).toBe(15);
  expect(at(0)).toEqual(at(4));
  expect(at(0.3)).toEqual(at(4.3));
  // Of a life that is longer than the cycle too.
  const long = sprayOf({ life: 10 }, shot);
  expect(aliveAt(long, 0)).toHaveLength(100);
});

it('any frame stands by itself: in the CSV each that is alive has a row in the world', () => {
  const rows = writeCsv(evaluated({ gravity: 1 })).split('\n');
  const at = rows.filter((row) => row.startsWith('13,') && row.includes(',particle '));
  expect(at.map((row) => row.split(',')[3])).toEqual(
    Array.from({ length: 10 }, (_, i) => `particle ${4 + i}`),
  );
  const [frame, time, rider, , x, y, z] = at[0].split(',');
  expect([frame, time, rider]).toEqual(['13', '1.2', 'r']);
  // Born at 0.3 s, 0.6 m along.
  expect([Number(x), Number(y), Number(z)]).toEqual([
    expect.closeTo(0, 9),
    expect.closeTo(1 + 3 * 0.9 - (9.80665 / 2) * 0.81, 9),
    expect.closeTo(0.6, 9),
  ]);
});

it('is told where it would be too many', () => {
  expect(sprayOf({ rate: 100_000 })).toMatchObject({ count: 50_000, limited: true });
});

it('of very many a frame each is where its emitter was, within a hundredth of a millimetre', () => {
  const ring = [
    [3, 0, 0],
    [0, 0, 3],
    [-3, 0, 0],
    [0, 0, -3],
  ].map((position) => ({ position }));
  const round = {
    paths: [{ id: 'p', name: 'p', basis: 'through', closed: true, points: ring }],
  };
  const few = sprayOf({ rate: 100, speed: 0, inherit: 1 }, round);
  const many = sprayOf({ rate: 10_000, speed: 0, inherit: 1 }, round);
  for (let n = 0; n < few.count; n += 7) {
    const [a, b] = [placeOf(few, n, 0.5), placeOf(many, 100 * n, 0.5)];
    expect(Math.hypot(...a.map((value, k) => value - b[k]))).toBeLessThan(1e-3);
    const [c, d] = [placeOf(few, n, 0), placeOf(many, 100 * n, 0)];
    expect(Math.hypot(...c.map((value, k) => value - d[k]))).toBeLessThan(1e-5);
  }
});
