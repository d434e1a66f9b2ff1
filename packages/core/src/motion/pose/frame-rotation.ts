import type { Quat } from '../../geometry/math/vec.js';

/**
 * The rotation that takes X, Y and Z to a frame's left, up and forward, as a unit quaternion: by its largest part first, so
 * that no root is taken of what may be nought (Shepperd 1978).
 *
 * @param frame position, left, up and forward: twelve numbers; the three are square to each other
 */
export function frameRotation(frame: Float64Array, out: Quat): void {
  const xx = frame[3];
  const xy = frame[4];
  const xz = frame[5];
  const yx = frame[6];
  const yy = frame[7];
  const yz = frame[8];
  const zx = frame[9];
  const zy = frame[10];
  const zz = frame[11];
  let x = yz - zy;
  let y = zx - xz;
  let z = xy - yx;
  let w = 1 + xx + yy + zz;
  if (w <= 1) {
    if (xx >= yy && xx >= zz) {
      w = x;
      x = 1 + xx - yy - zz;
      y = xy + yx;
      z = zx + xz;
    } else if (yy >= zz) {
      w = y;
      x = xy + yx;
      y = 1 + yy - xx - zz;
      z = yz + zy;
    } else {
      w = z;
      x = zx + xz;
      y = yz + zy;
      z = 1 + zz - xx - yy;
    }
  }
  const part = 1 / Math.sqrt(x * x + y * y + z * z + w * w);
  out[0] = x * part;
  out[1] = y * part;
  out[2] = z * part;
  out[3] = w * part;
}
