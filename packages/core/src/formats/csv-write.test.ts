import { NO_ASSETS } from '../evaluate/scene-assets.js';
import { sampleShot } from '../bake/index.js';
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
const lines = writeCsv(sampleShot(evaluateShot(shot, NO_ASSETS))).split('\n');

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
