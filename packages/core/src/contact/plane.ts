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
  let xx = 0;
  let xy = 0;
  let yy = 0;
  let xh = 0;
  let yh = 0;
  for (let i = 0; i < count; i++) {
    const x = places[2 * i] - mx;
    const y = places[2 * i + 1] - my;
    const h = heights[i] - mh;
    xx += x * x;
    xy += x * y;
    yy += y * y;
    xh += x * h;
    yh += y * h;
  }
  const determinant = xx * yy - xy * xy;
  if (determinant > 1e-9 * (xx + yy) ** 2) {
    out.ahead = (yy * xh - xy * yh) / determinant;
    out.left = (xx * yh - xy * xh) / determinant;
  } else {
    // All on one line: the slope is along it.
    const [ux, uy] = xx >= yy ? [xx, xy] : [xy, yy];
    const size = Math.hypot(ux, uy);
    const slope = size > 0 ? (ux * xh + uy * yh) / (size * (xx + yy)) : 0;
    out.ahead = size > 0 ? (slope * ux) / size : 0;
    out.left = size > 0 ? (slope * uy) / size : 0;
  }
  out.at = mh - out.ahead * mx - out.left * my;
  return out;
}
