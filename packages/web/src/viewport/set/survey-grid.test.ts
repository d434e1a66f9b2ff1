import * as THREE from 'three';
import { SurveyGrid } from './survey-grid';

/** Both ends of all pieces that a net draws: x and z each. */
function drawnBy(net: THREE.LineSegments): number[][] {
  const places = net.geometry.getAttribute('position').array;
  return Array.from({ length: net.geometry.drawRange.count / 2 }, (_, i) =>
    [0, 2, 3, 5].map((k) => places[6 * i + k]),
  );
}

/** Distance up to which its lines can be distinguished, metres from the camera. */
const reachOf = (net: THREE.LineSegments): number =>
  (net.material as THREE.ShaderMaterial).uniforms.reach.value as number;

/** Points of a net's lines that are in a picture and near enough, computed from the camera alone. */
function seenOf(net: THREE.LineSegments, camera: THREE.Camera, spacing: number): THREE.Vector3[] {
  const seen: THREE.Vector3[] = [];
  for (let i = -40; i <= 40; i++)
    for (let k = -39.5; k < 40; k++) {
      const place = new THREE.Vector3(i * spacing, 0, k * spacing);
      const far = -place.clone().applyMatrix4(camera.matrixWorldInverse).z;
      const { x, y, z } = place.clone().project(camera);
      if (far < reachOf(net) && Math.max(Math.abs(x), Math.abs(y), Math.abs(z)) < 1) seen.push(place);
    }
  return seen;
}

/** Whether a place on a line lengthwise is on a piece that is drawn. */
const isOn = (pieces: readonly number[][], { x, z }: THREE.Vector3): boolean =>
  pieces.some(([ax, az, bx, bz]) => ax === x && bx === x && az <= z && z <= bz);

const grid = new SurveyGrid();
const nets = grid.lines.children as THREE.LineSegments[];
const low = new THREE.PerspectiveCamera(40, 1.6, 0.1, 2_000);
const plan = new THREE.OrthographicCamera(-12, 12, 8, -8, 0.1, 500);

it.each([
  ['from low', low, [6, 3, -9], [0, 0, 4]],
  ['from the other side, higher', low, [-25, 14, 20], [3, 0, 0]],
  ['in plan', plan, [5, 100, 5], [5, 0, 5]],
] as const)('what is seen of its lines %s is drawn, and little else', (_, camera, from, to) => {
  camera.position.fromArray(from);
  camera.lookAt(new THREE.Vector3().fromArray(to));
  grid.update(camera, new THREE.Vector3(), 800, null, 0);
  nets.forEach((net, i) => {
    if (!net.visible) return;
    const drawn = drawnBy(net);
    const seen = seenOf(net, camera, 10 ** i);
    expect(seen.length).toBeGreaterThan(0);
    expect(seen.filter((place) => !isOn(drawn, place))).toEqual([]);
    // 81 lines each way, of 20 pieces.
    expect(drawn.length).toBeLessThan(0.6 * 2 * 81 * 20);
  });
  expect(nets.some(({ visible }) => visible)).toBe(true);
});

it('leaves out what lies under a model of the ground', () => {
  const built = new THREE.Box3(new THREE.Vector3(-4.5, 0, -4.5), new THREE.Vector3(4.5, 1, 4.5));
  const look = () => {
    grid.update(plan, new THREE.Vector3(), 800, null, 0);
    return drawnBy(nets[0]);
  };
  plan.position.set(0, 100, 0);
  plan.lookAt(0, 0, 0);
  const all = look();
  grid.leaveOut(built);
  const rest = look();
  const under = ([ax, az, bx, bz]: readonly number[]) =>
    Math.max(Math.abs(ax), Math.abs(bx), Math.abs(az), Math.abs(bz)) < 4.5;
  expect(all.filter(under).length).toBeGreaterThan(0);
  expect(rest).toEqual(all.filter((piece) => !under(piece)));
  grid.leaveOut(null);
  expect(look()).toEqual(all);
});
