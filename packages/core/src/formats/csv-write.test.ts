import { NO_ASSETS } from '../shot/evaluate/scene-assets.js';
import { sampleBlocks, sampleShot } from '../shot/bake/sample-shot.js';
import { newShot } from '../document/new-shot.js';
import { evaluateShot } from '../shot/evaluate/evaluate-shot.js';
import { newAttachment } from '../motion/ride/new-attachment.js';
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
    { id: 'first', name: 'A', attachment: newAttachment('p', range) },
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
      attachment: {
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

it('counts time from the first frame that is given, which stands beside it', () => {
  const part = writeCsv(evaluateShot(shot, NO_ASSETS), { first: 12, last: 13 }).split('\n');
  expect(part.slice(1, -1).map((line) => line.split(',').slice(0, 3).join())).toEqual([
    '12,0,first',
    '12,0,second',
    `13,${1 / 3},first`,
    `13,${1 / 3},second`,
  ]);
});

it('tells where the origin of a wagon is, whatever holds it on its path, and where its axles are', () => {
  const chassis = { frontAxle: 1, rearAxle: -0.6, frontCoupling: 1.9, rearCoupling: -1.3 };
  const wagons = newShot({
    name: 't',
    fps: 10,
    range: { first: 1, last: 21 },
    paths: [
      { id: 'p', name: 'P', basis: 'polyline', points: [{ position: [0, 0, 0] }, { position: [0, 0, 80] }] },
    ],
    riders: (['rearAxle', 'frontAxle', 'bothAxles', 'frontAxle'] as const).map((anchor, i) => ({
      id: `w${i}`,
      name: 'W',
      chassis,
      attachment: {
        path: 'p',
        anchor,
        coupledTo: i === 0 ? null : { rider: `w${i - 1}`, gap: 0 },
        pace: {
          keys: [
            { frame: 1, value: 40 },
            { frame: 21, value: 60 },
          ],
        },
      },
    })),
  });
  const [head, ...rows] = writeCsv(evaluateShot(wagons, NO_ASSETS)).trim().split('\n');
  expect(head).toBe(`${CSV_HEADER},frontAxle,rearAxle`);
  expect(rows).toHaveLength(4 * 21);
  for (const [i, row] of rows.entries()) {
    const cells = row.split(',');
    // Straight along Z: where it is is how far it is along. 3.2 m from coupling to coupling.
    const first = 40.6 + Math.floor(i / 4);
    expect(Number(cells[6])).toBeCloseTo(first - (i % 4) * 3.2, 9);
    expect(Number(cells[11])).toBeCloseTo(Number(cells[6]), 9);
    expect(Number(cells[14])).toBeCloseTo(Number(cells[6]) + 1, 9);
    expect(Number(cells[15])).toBeCloseTo(Number(cells[6]) - 0.6, 9);
  }
});
