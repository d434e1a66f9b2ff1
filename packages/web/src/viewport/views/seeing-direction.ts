import * as THREE from 'three';

/** Ways to look from: round about, from low to high. */
const ROUND = 12;
const HEIGHTS = [0.5, 0.25, 0.9, 1.2];
/** Places of a box that should be seen: its middle and near its corners, as parts of its half size. */
const SEEN: readonly (readonly [number, number, number])[] = [
  [0, 0, 0],
  [0.8, 0.8, 0.8],
  [-0.8, 0.8, -0.8],
  [0.8, 0.2, -0.8],
  [-0.8, 0.2, 0.8],
];

/**
 * Direction from which a box is visible, nearest to a wanted one: towards the camera, unit length.
 *
 * @param far     how far off the camera is
 * @param blocked whether something stands between two places
 */
export function seeingDirection(
  box: THREE.Box3,
  wish: THREE.Vector3,
  far: number,
  blocked: (from: THREE.Vector3, to: THREE.Vector3) => boolean,
): THREE.Vector3 {
  const middle = box.getCenter(new THREE.Vector3());
  const half = box.getSize(new THREE.Vector3()).multiplyScalar(0.5);
  const places = SEEN.map(([x, y, z]) => new THREE.Vector3(x, y, z).multiply(half).add(middle));
  const wished = wish.clone().normalize();
  const ways = [
    wished,
    ...HEIGHTS.flatMap((height) =>
      Array.from({ length: ROUND }, (_, i) => {
        const turn = (2 * Math.PI * i) / ROUND;
        return new THREE.Vector3(Math.cos(turn), height, Math.sin(turn)).normalize();
      }),
    ),
  ].sort((a, b) => b.dot(wished) - a.dot(wished));
  let best = { way: wished, hidden: Infinity };
  for (const way of ways) {
    const eye = middle.clone().addScaledVector(way, far);
    const hidden = places.filter((place) => blocked(place, eye)).length;
    if (hidden === 0) return way;
    if (hidden < best.hidden) best = { way, hidden };
  }
  return best.way;
}
