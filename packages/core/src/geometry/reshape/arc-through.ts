import { vec3 } from 'gl-matrix';
import type { Vec3 } from '../math/vec.js';
import type { Bezier } from '../path/bezier.js';
import { straight } from './change-basis.js';

/** The most a piece of an arc turns; its radius is then right within 4e-6. */
const MOST_TURN = Math.PI / 4;

/**
 * The arc of the circle through three places, from the first over the second to the third. Places on one
 * line give the straight run between the outer two.
 */
export function arcThrough(a: Vec3, b: Vec3, c: Vec3): Bezier[] {
  const ab = vec3.subtract([0, 0, 0], b, a);
  const ac = vec3.subtract([0, 0, 0], c, a);
  const normal = vec3.cross([0, 0, 0], ab, ac);
  const area = vec3.squaredLength(normal);
  if (area < 1e-18 * vec3.squaredLength(ac) ** 2 || area === 0) return [straight(a, c)];
  // From a to the middle of the circle (circumcentre of a triangle).
  const toMiddle = vec3.add(
    [0, 0, 0],
    vec3.scale([0, 0, 0], vec3.cross([0, 0, 0], normal, ab), vec3.squaredLength(ac) / (2 * area)),
    vec3.scale([0, 0, 0], vec3.cross([0, 0, 0], ac, normal), vec3.squaredLength(ab) / (2 * area)),
  );
  const middle = vec3.add([0, 0, 0], a, toMiddle) as Vec3;
  const radius = vec3.length(toMiddle);
  const x = vec3.scale([0, 0, 0], toMiddle, -1 / radius);
  const y = vec3.normalize([0, 0, 0], vec3.cross([0, 0, 0], normal, x));
  const angleOf = (place: Vec3): number => {
    const out = vec3.subtract([0, 0, 0], place, middle);
    const angle = Math.atan2(vec3.dot(out, y), vec3.dot(out, x));
    return angle < 0 ? angle + 2 * Math.PI : angle;
  };
  // The normal of a, b, c is such that they follow each other by growing angle.
  const sweep = angleOf(c);
  const count = Math.max(1, Math.ceil(sweep / MOST_TURN - 1e-9));
  const turn = sweep / count;
  const reach = (4 / 3) * Math.tan(turn / 4) * radius;
  const place = (angle: number, side: number): Vec3 =>
    [0, 1, 2].map((k) => {
      const out = radius * (Math.cos(angle) * x[k] + Math.sin(angle) * y[k]);
      return middle[k] + out + side * (Math.cos(angle) * y[k] - Math.sin(angle) * x[k]);
    }) as Vec3;
  return Array.from({ length: count }, (_, i): Bezier => {
    const [from, to] = [i * turn, (i + 1) * turn];
    const start = i === 0 ? a : place(from, 0);
    const end = i === count - 1 ? c : place(to, 0);
    return [start, place(from, reach), place(to, -reach), end];
  });
}
