import { even, line, shotOf } from '../../test/shots.js';
import { GroundSurface, floorAt } from '../geometry/ground/ground-surface.js';
import type { Loose } from '../document/new-shot.js';
import type { Rider } from '../document/shot-rider.js';
import { evaluateShot } from '../shot/evaluate/evaluate-shot.js';
import { NO_ASSETS } from '../shot/evaluate/scene-assets.js';
import { checkShot } from './check-shot.js';

const ground = new GroundSurface(floorAt(1));
const kindsOf = (riders: Loose<Rider>[]) =>
  checkShot(evaluateShot(shotOf([line(60)], riders, { ground: { level: 1 } }), { ...NO_ASSETS, ground }))
    .filter(({ kind }) => /ground|hidden/.test(kind))
    .map(({ kind, rider }) => `${kind} ${rider}`);
const wheel = { node: 'w', centre: [0, 0.4, 0] as [number, number, number], radius: 0.4 };
const car = (rise: number): Loose<Rider> => ({
  id: `car-${rise}`,
  name: 'Car',
  kind: 'vehicle',
  wheels: [wheel],
  attachment: { path: 'p', offset: { rise }, pace: even(0, 60) },
});
const camera = (height: number, target: number): Loose<Rider> => ({
  id: `camera${height}`,
  name: 'Camera',
  kind: 'camera',
  camera: {},
  attachment: {
    path: 'p',
    offset: { rise: height },
    facing: { mode: 'aim', target: { point: [0, target, 90] } },
    pace: even(0, 60),
  },
});

it('what rolls beneath the floor or a little above it is told, and what rolls on it is not', () => {
  expect(kindsOf([car(0.5), car(1), car(1.2)])).toEqual(['under-ground car-0.5', 'off-ground car-1.2']);
});

it('a camera sees nothing through the floor, from above it and from beneath', () => {
  expect(kindsOf([camera(4, 1.2)])).toEqual([]);
  expect(kindsOf([camera(4, 0.5)])).toEqual(['hidden camera4']);
  expect(kindsOf([camera(-2, 3)]).sort()).toEqual(['camera-under-ground camera-2', 'hidden camera-2']);
  expect(kindsOf([camera(-2, -1)])).toEqual(['camera-under-ground camera-2']);
});
