import { NO_ASSETS } from '../evaluate/scene-assets.js';
import { sampleBlocks, sampleShot } from '../bake/index.js';
import { newShot } from '../document/new-shot.js';
import { evaluateShot } from '../evaluate/index.js';
import { newHitch } from '../ride/new-hitch.js';
import { CSV_HEADER, writeCsv } from './csv-write.js';

const range = { first: 10, last: 13 };
const shot = newShot({
  name: 't',
  fps: 3,
  range,
  paths: [
    { id: 'p', name: 'P', basis: 'polyline', points: [{ position: [0, 0, 0] }, { position: [0, 0, 0.3] }] },
  ],
  riders: [
    { id: 'first', name: 'A', hitch: newHitch('p', range) },
    { id: 'second', name: 'B' },
  ],
});
const lines = writeCsv(evaluateShot(shot, NO_ASSETS)).split('\n');

it('has one row for each frame and rider, frames outermost, both ends included', () => {
  expect(lines[0]).toBe('frame,time,rider,part,tx,ty,tz,qx,qy,qz,qw,distance,speed,bank');
  expect(CSV_HEADER).toBe(lines[0]);
  expect(lines.slice(1, -1).map((line) => line.split(',').slice(0, 4).join())).toEqual([
    '10,0,first,',
    '10,0,second,',
    `11,${1 / 3},first,`,
    `11,${1 / 3},second,`,
    `12,${2 / 3},first,`,
    `12,${2 / 3},second,`,
    '13,1,first,',
    '13,1,second,',
  ]);
  expect(lines.at(-1)).toBe('');
});

it('writes numbers that read back to the same double', () => {
  const row = lines[3].split(',');
  expect(Number(row[11])).toBeCloseTo(0.1, 15);
  expect(row[11]).toBe(String(Number(row[11])));
  expect(Number(row[12])).toBeCloseTo(0.3, 15);
  expect(row[13]).toBe('0');
});

it('is the same in blocks of frames as whole, turns by the shorter way from one to the next too', () => {
  const turning = newShot({
    name: 't',
    range: { first: 1, last: 97 },
    paths: [
      {
        id: 'p',
        name: 'P',
        basis: 'through',
        closed: true,
        points: [
          { position: [0, 0, 0] },
          { position: [9, 2, 0] },
          { position: [9, 0, 9] },
          { position: [0, 4, 9] },
        ],
      },
    ],
    riders: [1, 2].map((n) => ({
      id: `r${n}`,
      name: 'R',
      hitch: {
        path: 'p',
        pace: {
          keys: [
            { frame: 1, value: 0 },
            { frame: 97, value: 130 * n },
          ],
        },
      },
    })),
  });
  const evaluated = evaluateShot(turning, NO_ASSETS);
  const whole = sampleShot(evaluated);
  const blocks = Array.from(sampleBlocks(evaluated, 60), ({ frames, riders }) => ({
    frames,
    riders: riders.map((poses) => Array.from(poses)),
  }));
  expect(blocks.map(({ frames }) => frames)).toEqual([...Array<number>(32).fill(3), 1]);
  whole.riders.forEach((poses, r) =>
    expect(blocks.flatMap(({ riders }) => riders[r])).toEqual(Array.from(poses)),
  );
  // It turns right round more than once, so that the sign has to be kept across blocks.
  expect(whole.riders[1].filter((_, i) => i % 10 === 6).some((w) => w < 0)).toBe(true);
});
