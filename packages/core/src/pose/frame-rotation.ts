import type { Quat } from '../math/vec.js';

/**
 * The rotation that takes X, Y and Z to a frame's left, up and forward, as a unit quaternion: by its largest part first, so
 * that no root is taken of what may be nought (Shepperd 1978).
 *
 * @param frame position, left, up and forward: twelve numbers; the three are square to each other
 */
export function frameRotation(frame: Float64Array, out: Quat): void {
  const [xx, xy, xz] = [frame[3], frame[4], frame[5]];
  const [yx, yy, yz] = [frame[6], frame[7], frame[8]];
  const [zx, zy, zz] = [frame[9], frame[10], frame[11]];
  let x: number;
  let y: number;
  let z: number;
  let w: number;
  if (xx + yy + zz > 0) {
    [x, y, z, w] = [yz - zy, zx - xz, xy - yx, 1 + xx + yy + zz];
  } else if (xx >= yy && xx >= zz) {
    [x, y, z, w] = [1 + xx - yy - zz, xy + yx, zx + xz, yz - zy];
  } else if (yy >= zz) {
    [x, y, z, w] = [xy + yx, 1 + yy - xx - zz, yz + zy, zx - xz];
  } else {
    [x, y, z, w] = [zx + xz, yz + zy, 1 + zz - xx - yy, xy - yx];
  }
  const size = Math.sqrt(x * x + y * y + z * z + w * w);
  out[0] = x / size;
  out[1] = y / size;
  out[2] = z / size;
  out[3] = w / size;
}
