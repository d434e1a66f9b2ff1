/** A cubic Bézier in the plane: first handle, second handle, end; it starts where the last one ended. */
export type PlaneCubic = [number, number, number, number, number, number];

/**
 * Largest angle of one cubic. At an eighth of a turn the radius is off by 4e-6 of itself, 0.04 mm on a 10 m bend, and
 * a circle has eight points to edit.
 */
const PIECE = Math.PI / 4;

/**
 * An SVG elliptical arc as cubics (SVG 1.1, appendix F.6: endpoint to centre form).
 *
 * @param rotation of the ellipse's x axis, radians
 */
export function arcToCubics(
  x0: number,
  y0: number,
  rx: number,
  ry: number,
  rotation: number,
  large: boolean,
  sweep: boolean,
  x1: number,
  y1: number,
): PlaneCubic[] {
  if (x0 === x1 && y0 === y1) return [];
  let a = Math.abs(rx);
  let b = Math.abs(ry);
  if (a === 0 || b === 0) return [[x0, y0, x1, y1, x1, y1]];
  const cos = Math.cos(rotation);
  const sin = Math.sin(rotation);
  const dx = (x0 - x1) / 2;
  const dy = (y0 - y1) / 2;
  const x = cos * dx + sin * dy;
  const y = -sin * dx + cos * dy;
  const stretch = (x * x) / (a * a) + (y * y) / (b * b);
  if (stretch > 1) {
    a *= Math.sqrt(stretch);
    b *= Math.sqrt(stretch);
  }
  const inside = (a * a * b * b - a * a * y * y - b * b * x * x) / (a * a * y * y + b * b * x * x);
  const root = (large === sweep ? -1 : 1) * Math.sqrt(Math.max(0, inside));
  const cx = (root * a * y) / b;
  const cy = (-root * b * x) / a;
  const centreX = cos * cx - sin * cy + (x0 + x1) / 2;
  const centreY = sin * cx + cos * cy + (y0 + y1) / 2;
  const from = Math.atan2((y - cy) / b, (x - cx) / a);
  const to = Math.atan2((-y - cy) / b, (-x - cx) / a);
  let turn = to - from;
  if (sweep && turn < 0) turn += 2 * Math.PI;
  if (!sweep && turn > 0) turn -= 2 * Math.PI;
  const pieces = Math.max(1, Math.ceil(Math.abs(turn) / PIECE - 1e-9));
  const step = turn / pieces;
  const reach = (4 / 3) * Math.tan(step / 4);
  const place = (ex: number, ey: number): [number, number] => [
    centreX + cos * a * ex - sin * b * ey,
    centreY + sin * a * ex + cos * b * ey,
  ];
  const cubics: PlaneCubic[] = [];
  for (let i = 0; i < pieces; i++) {
    const p = from + i * step;
    const q = p + step;
    const h1 = place(Math.cos(p) - reach * Math.sin(p), Math.sin(p) + reach * Math.cos(p));
    const h2 = place(Math.cos(q) + reach * Math.sin(q), Math.sin(q) - reach * Math.cos(q));
    const end: [number, number] = i === pieces - 1 ? [x1, y1] : place(Math.cos(q), Math.sin(q));
    cubics.push([...h1, ...h2, ...end]);
  }
  return cubics;
}
