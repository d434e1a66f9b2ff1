import * as THREE from 'three';
import { seeingDirection } from './seeing-direction';

const box = new THREE.Box3(new THREE.Vector3(-1, 0, -2), new THREE.Vector3(1, 1.5, 2));
const above = new THREE.Vector3(0.2, 1, 0.3).normalize();

it('keeps the way that is wished for where nothing stands in it', () => {
  expect(seeingDirection(box, above, 10, () => false).angleTo(above)).toBeLessThan(1e-9);
});

it('under a deck it looks in from the side, as near to the wish as it can', () => {
  // A deck 3 m up and 4 m wide: whatever passes through it is hidden.
  const deck = (from: THREE.Vector3, to: THREE.Vector3) => {
    const part = (3 - from.y) / (to.y - from.y);
    const x = from.x + part * (to.x - from.x);
    return part > 0 && part < 1 && Math.abs(x) < 2;
  };
  const way = seeingDirection(box, above, 10, deck);
  const eye = box.getCenter(new THREE.Vector3()).addScaledVector(way, 10);
  expect(deck(box.getCenter(new THREE.Vector3()), eye)).toBe(false);
  expect(way.y).toBeLessThan(0.6);
  expect(way.y).toBeGreaterThan(0);
});

it('where all ways are barred it takes the least barred', () => {
  let asked = 0;
  const way = seeingDirection(box, above, 10, () => ++asked > 0);
  expect(way.length()).toBeCloseTo(1, 9);
});
