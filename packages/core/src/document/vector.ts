/** A point or direction: x, y, z in metres (or unitless for directions). */
export type Vec3 = [number, number, number];

/** A rotation: x, y, z, w, unit length. */
export type Quat = [number, number, number, number];
