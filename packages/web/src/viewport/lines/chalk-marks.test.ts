import { newShot } from '@fleet-rail/core';
import { evaluateWhole } from '../../workers/evaluation/evaluate-whole';
import { wheelPlace } from '../../ui/words/wheel-place';
import { chalkMarks } from './chalk-marks';

const wheel = (x: number, z: number) => ({
  node: `${x} ${z}`,
  centre: [x, 0.5, z] as [number, number, number],
  radius: 0.5,
});
const shot = newShot({
  name: 't',
  range: { first: 1, last: 97 },
  paths: [
    {
      id: 'p',
      name: 'P',
      basis: 'polyline',
      points: [{ position: [0, 0, 0] }, { position: [0, 0, 40] }],
    },
  ],
  riders: [
    {
      id: 'r',
      name: 'R',
      wheels: [wheel(0.8, 0), wheel(-0.8, 0), wheel(0.8, 2), wheel(-0.8, 2)],
      attachment: {
        path: 'p',
        pace: {
          keys: [
            { frame: 1, value: 0 },
            { frame: 97, value: 24 },
          ],
        },
      },
    },
  ],
});
const [rider] = shot.riders;

it('a wheel that does not slide prints a dash a turn, as long as the stripe on its rim', () => {
  const evaluation = evaluateWhole(shot);
  const evaluated = evaluation.riders.get('r');
  if (!evaluated) throw new Error('no rider');
  const one = { ...rider, wheels: rider.wheels.slice(0, 1) };
  const { marks, smears } = chalkMarks(one, evaluation, evaluated);
  expect(smears).toEqual([]);
  const places = Array.from({ length: marks.length / 3 }, (_, i) => marks.slice(3 * i, 3 * i + 3));
  // On the ground (a little above it), under the wheel's own side.
  for (const [x, y] of places) {
    expect(Math.abs(x - 0.8)).toBeLessThan(0.03);
    expect(y).toBeLessThan(0.05);
  }
  // Parts of the track: the first quarter of every 2π · 0.5 m.
  const round = Math.PI;
  for (const [, , z] of places) expect((z + 1e-6) % round).toBeLessThan(round / 4 + 1e-5);
  const covered = Math.max(...places.map(([, , z]) => z));
  expect(Math.floor(covered / round)).toBe(Math.floor(24 / round));
});

it('wheels are told by where they are', () => {
  expect(rider.wheels.map((one) => wheelPlace(rider, one))).toEqual([
    'Rear left',
    'Rear right',
    'Front left',
    'Front right',
  ]);
  const barrel = {
    ...rider,
    wheels: [{ ...rider.wheels[0], centre: [0, 0, 0] as [number, number, number] }],
  };
  expect(wheelPlace(barrel, barrel.wheels[0])).toBe('Rolling part');
});
