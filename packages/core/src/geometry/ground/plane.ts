/** A plane over the plan: height = at + ahead · x + left · y. */
export interface Plane {
  at: number;
  ahead: number;
  left: number;
}

/**
 * The plane nearest to heights over places of the plan (least squares). Where the places lie on one line, or are
 * one, it stays level across.
 *
 * @param places x, y in turn, metres
 */
export function planeThrough(places: Float64Array, heights: Float64Array, out: Plane): Plane {
  const count = heights.length;
  let mx = 0;
  let my = 0;
  let mh = 0;
  for (let i = 0; i < count; i++) {
    mx += places[2 * i] / count;
    my += places[2 * i + 1] / count;
    mh += heights[i] / count;
  }
  // The nearest plane goes through the middle of all.
  return planeThroughPoint(places, heights, mx, my, mh, out);
}

/**
 * The plane nearest to heights over places of the plan that goes through one point exactly. Where all lie on one line, it stays
 * level across.
 *
 * @param places x, y in turn, metres
 * @param px, py, height the point
 */
export function planeThroughPoint(
  places: Float64Array,
  heights: Float64Array,
  px: number,
  py: number,
  height: number,
  out: Plane,
): Plane {
  let xx = 0;
  let xy = 0;
  let yy = 0;
  let xh = 0;
  let yh = 0;
  for (let i = 0; i < heights.length; i++) {
    const x = places[2 * i] - px;
    const y = places[2 * i + 1] - py;
    const h = heights[i] - height;
    xx += x * x;
    xy += x * y;
    yy += y * y;
    xh += x * h;
    yh += y * h;
  }
  slopesOf(xx, xy, yy, xh, yh, out);
  out.at = height - out.ahead * px - out.left * py;
  return out;
}

/** The slopes of least squares from sums of products; along the line where all places lie on one. */
function slopesOf(xx: number, xy: number, yy: number, xh: number, yh: number, out: Plane): void {
  const determinant = xx * yy - xy * xy;
  if (determinant > 1e-9 * (xx + yy) ** 2) {
    out.ahead = (yy * xh - xy * yh) / determinant;
    out.left = (xx * yh - xy * xh) / determinant;
    return;
  }
  const [ux, uy] = xx >= yy ? [xx, xy] : [xy, yy];
  const size = Math.hypot(ux, uy);
  const slope = size > 0 ? (ux * xh + uy * yh) / (size * (xx + yy)) : 0;
  out.ahead = size > 0 ? (slope * ux) / size : 0;
  out.left = size > 0 ? (slope * uy) / size : 0;
}
