import type { mat3, mat4, quat } from 'gl-matrix';

// gl-matrix creates Float32Arrays, which lose the exactness promised for lengths. These are lists of doubles.

/** An identity matrix of 4 × 4. */
export const newMat4 = (): mat4 => [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];

/** An identity matrix of 3 × 3. */
export const newMat3 = (): mat3 => [1, 0, 0, 0, 1, 0, 0, 0, 1];

/** The turn that turns nothing. */
export const newQuat = (): quat => [0, 0, 0, 1];
