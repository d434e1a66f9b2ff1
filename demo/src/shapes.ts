import type { Vec3 } from '@fleet-rail/core';

/** Triangles with a normal each, flat shaded: nine numbers of place a triangle. */
export type Triangles = number[];

/** Moves and turns nothing but places: every shape is made round the origin and then moved. */
export function moved(shape: Triangles, by: Vec3): Triangles {
  return shape.map((value, i) => value + by[i % 3]);
}

/** Turned about the x, then y, then z axis, radians. */
export function turned(shape: Triangles, [rx, ry, rz]: Vec3): Triangles {
  const out: Triangles = [];
  for (let i = 0; i < shape.length; i += 3) {
    let [x, y, z] = shape.slice(i, i + 3);
    [y, z] = [y * Math.cos(rx) - z * Math.sin(rx), y * Math.sin(rx) + z * Math.cos(rx)];
    [x, z] = [x * Math.cos(ry) + z * Math.sin(ry), -x * Math.sin(ry) + z * Math.cos(ry)];
    [x, y] = [x * Math.cos(rz) - y * Math.sin(rz), x * Math.sin(rz) + y * Math.cos(rz)];
    out.push(x, y, z);
  }
  return out;
}

/** A flat or folded outline as a fan of triangles, anticlockwise as seen from its front. */
export function fan(corners: readonly Vec3[]): Triangles {
  const out: Triangles = [];
  for (let i = 1; i < corners.length - 1; i++) out.push(...corners[0], ...corners[i], ...corners[i + 1]);
  return out;
}

/** A box with its centre at the origin. The top may be smaller than the base. */
export function box(width: number, height: number, length: number, topScale = 1): Triangles {
  const [x, y, z] = [width / 2, height / 2, length / 2];
  const [tx, tz] = [x * topScale, z * topScale];
  const low: Vec3[] = [
    [-x, -y, -z],
    [x, -y, -z],
    [x, -y, z],
    [-x, -y, z],
  ];
  const high: Vec3[] = [
    [-tx, y, -tz],
    [tx, y, -tz],
    [tx, y, tz],
    [-tx, y, tz],
  ];
  const sides = low.flatMap((_, i) => fan([low[i], high[i], high[(i + 1) % 4], low[(i + 1) % 4]]));
  return [...fan(low), ...sides, ...fan([...high].reverse())];
}

/** A prism or cone along y, its centre at the origin. */
export function drum(radius: number, height: number, sides: number, topRadius = radius): Triangles {
  const ring = (r: number, y: number): Vec3[] =>
    Array.from({ length: sides }, (_, i) => {
      const a = (2 * Math.PI * i) / sides;
      return [r * Math.sin(a), y, r * Math.cos(a)];
    });
  const low = ring(radius, -height / 2);
  const high = ring(Math.max(topRadius, 1e-4), height / 2);
  const out: Triangles = [...fan([...low].reverse()), ...fan(high)];
  for (let i = 0; i < sides; i++) {
    const j = (i + 1) % sides;
    out.push(...fan([low[i], low[j], high[j], high[i]]));
  }
  return out;
}

/** A ball of a few rings, its centre at the origin. */
export function ball(radius: number, sides: number, rings: number): Triangles {
  const at = (ring: number, side: number): Vec3 => {
    const polar = (Math.PI * ring) / rings;
    const a = (2 * Math.PI * side) / sides;
    return [
      radius * Math.sin(polar) * Math.sin(a),
      radius * Math.cos(polar),
      radius * Math.sin(polar) * Math.cos(a),
    ];
  };
  const out: Triangles = [];
  for (let ring = 0; ring < rings; ring++) {
    for (let side = 0; side < sides; side++) {
      if (ring > 0) out.push(...at(ring, side), ...at(ring + 1, side), ...at(ring, side + 1));
      if (ring < rings - 1) out.push(...at(ring, side + 1), ...at(ring + 1, side), ...at(ring + 1, side + 1));
    }
  }
  return out;
}
