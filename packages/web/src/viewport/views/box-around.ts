import * as THREE from 'three';

/** The box around lines, with a metre of room; a place to begin with where there are none. */
export function boxAround(lines: readonly ArrayLike<number>[]): THREE.Box3 {
  const box = new THREE.Box3();
  for (const line of lines) {
    for (let i = 0; i < line.length; i += 3)
      box.expandByPoint(new THREE.Vector3(line[i], line[i + 1], line[i + 2]));
  }
  if (box.isEmpty()) box.set(new THREE.Vector3(-12, 0, -12), new THREE.Vector3(12, 2, 12));
  return box.expandByScalar(1);
}
