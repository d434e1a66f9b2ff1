import { expect, it } from '@jest/globals';
import { Rider, defaultsOf, newShot } from '@fleet-rail/core';
import * as THREE from 'three';
import { RiderFigures } from '../figures/rider-figures';

/** Stand-ins by their places along Z, under their own names. */
function row(places: Readonly<Record<string, number>>): RiderFigures {
  const figures = new RiderFigures(
    () => undefined,
    (problem) => {
      throw new Error(problem);
    },
  );
  const riders = Object.keys(places).map((id): Rider => ({ ...defaultsOf(Rider), id, name: id }));
  figures.show({ ...newShot({ name: 'Row' }), riders });
  for (const [id, z] of Object.entries(places)) figures.groupOf(id)?.position.set(0, 0, z);
  figures.drawCopies();
  return figures;
}

const opacities = (figures: RiderFigures, ids: readonly string[]) =>
  ids.map((id) => {
    const mesh = figures.groupOf(id)?.children[0] as THREE.Mesh<THREE.BufferGeometry, THREE.Material>;
    return mesh.material.transparent ? mesh.material.opacity : 1;
  });

const eye = new THREE.Vector3(0, 0.125, 20);

it('what stands before the chosen rider is seen through, what stands behind or beside it is not', () => {
  const figures = row({ before: 10, chosen: 0, behind: -10 });
  expect(figures.fadeBefore(eye, 'chosen')).toBe(true);
  const [before, chosen, behind] = opacities(figures, ['before', 'chosen', 'behind']);
  expect(before).toBeLessThan(0.5);
  expect([chosen, behind]).toEqual([1, 1]);
  expect(figures.fadeBefore(eye, 'chosen')).toBe(false);
  expect(figures.fadeBefore(eye, null)).toBe(true);
  expect(opacities(figures, ['before'])).toEqual([1]);
});

it('so it is where many share a shape and a paint, which all the others keep', () => {
  const names = ['chosen', 'a', 'b', 'c', 'd', 'e'];
  const figures = row(Object.fromEntries(names.map((name, i) => [name, 2 * i])));
  figures.fadeBefore(eye, 'c');
  figures.drawCopies();
  const seen = opacities(figures, names);
  expect(seen.slice(0, 4)).toEqual([1, 1, 1, 1]);
  expect(Math.max(...seen.slice(4))).toBeLessThan(0.5);
});
