import * as THREE from 'three';
import { FigureCopies, seeCopies } from './figure-copies';

const shape = new THREE.BoxGeometry(1, 1, 1);
const paint = new THREE.MeshBasicMaterial();

function figureAt(x: number, mesh: THREE.Mesh = new THREE.Mesh(shape, paint)): THREE.Group {
  const group = new THREE.Group();
  group.add(mesh);
  group.position.x = x;
  group.updateMatrixWorld(true);
  return group;
}

/** Instances as drawn: their number, and the x of each. */
function drawnBy(copies: FigureCopies): number[][] {
  const matrix = new THREE.Matrix4();
  return copies.object.children.map((child) => {
    const drawn = child as THREE.InstancedMesh;
    return Array.from({ length: drawn.count }, (_, i) => {
      drawn.getMatrixAt(i, matrix);
      return matrix.elements[12];
    });
  });
}

/** Whether a camera would draw a figure's mesh by itself. */
const isDrawnAlone = (group: THREE.Group) =>
  group.children[0].layers.test(new THREE.PerspectiveCamera().layers);

it('what is alike is drawn in one go, where its figures are, and is still met by rays', () => {
  const copies = new FigureCopies();
  const groups = [0, 2, 4, 6].map((x) => figureAt(x));
  copies.update(groups);
  expect(drawnBy(copies)).toEqual([[0, 2, 4, 6]]);
  expect(groups.some(isDrawnAlone)).toBe(false);
  groups[1].position.x = 3;
  groups[1].updateMatrixWorld(true);
  groups[2].visible = false;
  copies.update(groups);
  expect(drawnBy(copies)).toEqual([[0, 3, 6]]);
  const ray = new THREE.Raycaster(new THREE.Vector3(6, 5, 0), new THREE.Vector3(0, -1, 0));
  expect(ray.intersectObject(groups[3])).toEqual([]);
  expect(seeCopies(ray).intersectObject(groups[3]).length).toBeGreaterThan(0);
});

it('few, mirrored, skinned and shaped ones are drawn as they are', () => {
  const copies = new FigureCopies();
  const few = [0, 1, 2].map((x) => figureAt(x));
  const mirrored = figureAt(9);
  mirrored.scale.x = -1;
  mirrored.updateMatrixWorld(true);
  const skinned = figureAt(8, new THREE.SkinnedMesh(shape, paint));
  copies.update([...few, mirrored, skinned]);
  expect(drawnBy(copies)).toEqual([]);
  expect([...few, mirrored, skinned].every(isDrawnAlone)).toBe(true);
});

it('a figure more or less is taken up when that is said', () => {
  const copies = new FigureCopies();
  const groups = [0, 1, 2, 3].map((x) => figureAt(x));
  copies.update(groups.slice(0, 3));
  copies.invalidate();
  copies.update(groups);
  expect(drawnBy(copies)).toEqual([[0, 1, 2, 3]]);
  copies.invalidate();
  copies.update(groups.slice(1));
  expect(drawnBy(copies)).toEqual([]);
  expect(groups.slice(1).every(isDrawnAlone)).toBe(true);
});
