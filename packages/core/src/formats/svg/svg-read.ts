import { DOMParser, onErrorStopParsing, type Element } from '@xmldom/xmldom';
import { applyToPoint, type Matrix } from 'transformation-matrix';
import { LIMITS } from '../../document/limits.js';
import { defaultsOf } from '../../document/defaults.js';
import { freeId } from '../../document/free-name.js';
import { uniqueNames } from '../../document/unique-names.js';
import { PathPoint, ShotPath } from '../../document/shot-path.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { FormatError } from '../format-error.js';
import { pathOfPositions, type Imported } from '../imported.js';
import { HEIGHTS } from '../paths-write.js';
import { SvgDrawing, where, type DrawnShape } from './svg-drawing.js';
import { numbersIn } from './svg-lengths.js';
import type { Outline } from './svg-outline.js';

/** Contents of an SVG file: its paths, and the number of drawn elements that are none. */
export interface SvgPaths {
  /** Backgrounds, and closed shapes that have no line, last. */
  readonly paths: ShotPath[];
  /** Names of elements that were passed over, as "text" or "image". */
  readonly passedOver: string[];
  /** Notes for the animator on how it was read. */
  readonly notes: string[];
  /** Metres for one user unit, where the file says how large it is meant to be. */
  readonly metresPerUnit: number | null;
  /** So many paths, the first, are neither backgrounds nor areas without a line. */
  readonly likely: number;
}

/** Shared by all points: the document is never changed in place. */
const PLAIN_POINT = defaultsOf(PathPoint);

/** Most paths offered of one file: nobody reads through more. */
export const MOST_OFFERED = 2_000;

/** How much of the page a shape covers that is a background, in parts of its sides. */
const BACKGROUND = 0.97;

/**
 * The paths of an SVG file on the ground, as a browser draws them: x → X, y → Z, height 0. Each unbroken run becomes
 * a path: straight runs a polyline, anything else a Bézier path. Arcs become cubics within 4e-6 of their radius.
 *
 * @param file  the file's name, for messages and for naming paths without an id
 * @param scale metres for one user unit
 * @param onProgress told the part that is done, from time to time
 * @param tolerance  metres that a path may be off which has more points than one can hold
 * @throws FormatError where the file is no SVG or has no path
 */
export function readSvg(
  text: string,
  file: string,
  scale = 1,
  onProgress?: (part: number) => void,
  tolerance = 0.01,
): SvgPaths {
  const root = parseXml(text, file);
  // Reading the XML takes about as long as taking its outlines up.
  onProgress?.(0.5);
  const total = root.getElementsByTagName('*').length;
  const drawing = new SvgDrawing(root, file);
  const base = file.replace(/^.*[\\/]/, '').replace(/\.svg$/i, '') || 'path';
  const into: Imported = { paths: [], rides: [], notes: [] };
  const last = new Set<ShotPath>();
  let visited = 0;
  let left = 0;
  for (const shape of drawing.shapes()) {
    onProgress?.(Math.min(1, 0.5 + (0.5 * ++visited) / total));
    const named = shape.id || base;
    shape.outlines.forEach((outline, i) => {
      if (into.paths.length >= MOST_OFFERED) left++;
      if (left > 0) return;
      const name = shape.outlines.length > 1 ? `${named} ${i + 1}` : named;
      const path = pathOf(shape, outline, { scale, name, file, tolerance, into });
      if (path === null) return;
      into.paths.push(path);
      if (isBackground(shape, outline, drawing) || (outline.closed && !shape.stroked)) last.add(path);
    });
  }
  const passedOver = [...drawing.passedOver];
  if (into.paths.length === 0) {
    const others = passedOver.length > 0 ? ` It holds only: ${passedOver.join(', ')}.` : '';
    const why = drawing.notes.length > 0 ? ` ${drawing.notes[0]}` : '';
    throw new FormatError(
      file,
      `there is no path in this SVG; expected a path, line, polyline, polygon, circle, ellipse or rect.${others}${why}`,
    );
  }
  const names = uniqueNames(
    into.paths.map(({ name }) => name),
    () => base,
  );
  into.paths.forEach((path, i) => (path.name = names[i]));
  const notes = [...drawing.notes, ...into.notes];
  if (left > 0) notes.push(`Of its paths the first ${MOST_OFFERED} are offered; ${left} more were left out.`);
  const paths = [...into.paths.filter((path) => !last.has(path)), ...last];
  return { paths, passedOver, notes, metresPerUnit: drawing.metresPerUnit, likely: paths.length - last.size };
}

function isBackground({ matrix }: DrawnShape, outline: Outline, { page }: SvgDrawing): boolean {
  if (page === null || !outline.closed) return false;
  const places = [outline.start, ...outline.cubics.map((cubic) => [cubic[4], cubic[5]] as [number, number])];
  const [xs, ys] = [0, 1].map((k) => places.map((place) => applyToPoint(matrix, place)[k]));
  const width = Math.max(...xs) - Math.min(...xs);
  const height = Math.max(...ys) - Math.min(...ys);
  return places.length < 12 && width >= BACKGROUND * page.width && height >= BACKGROUND * page.height;
}

function parseXml(text: string, file: string): Element {
  let root: Element | null;
  try {
    // xmldom wants the mark that some editors put first to be gone.
    const clean = text.replace(/^\uFEFF/, '');
    root = new DOMParser({ onError: onErrorStopParsing }).parseFromString(
      clean,
      'image/svg+xml',
    ).documentElement;
  } catch (error) {
    throw new FormatError(file, `is not well-formed XML${placeOf(error)}; expected an SVG drawing.`);
  }
  if (root === null || root.localName !== 'svg') {
    throw new FormatError(file, `its root is <${root?.nodeName.slice(0, 40) ?? 'nothing'}>; expected <svg>.`);
  }
  return root;
}

/** Place of an error in the text, if it is known; the XML library's own message is for programmers. */
function placeOf(error: unknown): string {
  const { lineNumber, columnNumber } =
    (error as { locator?: { lineNumber?: number; columnNumber?: number } }).locator ?? {};
  return lineNumber ? ` (line ${lineNumber}, column ${columnNumber ?? 1})` : '';
}

/** How a run becomes a path. */
interface Taking {
  readonly scale: number;
  readonly name: string;
  readonly file: string;
  readonly tolerance: number;
  readonly into: Imported;
}

/** A run as a path; null where it has no two points. */
function pathOf({ element, matrix }: DrawnShape, outline: Outline, taking: Taking): ShotPath | null {
  const { scale, file, into } = taking;
  // With room for a number, where others are called alike.
  const name = taking.name.slice(0, LIMITS.textLength - 8);
  const straight = isStraight(outline);
  const height = heightsOf(element, outline);
  const place = (x: number, y: number, cubic: number, handle: 1 | 2 | 3): Vec3 => {
    const p = applyToPoint(matrix, { x, y });
    return [p.x * scale, height(cubic, handle) * scale, p.y * scale];
  };
  if (outline.cubics.length > LIMITS.pointsPerPath)
    return pathOfPositions(
      file,
      name,
      placesAlong(outline, straight, matrix, scale),
      {
        basis: straight ? 'polyline' : 'through',
        closed: outline.closed,
        tolerance: taking.tolerance,
      },
      into,
    );
  const points = [newPoint(place(...outline.start, -1, 3))];
  outline.cubics.forEach(([x1, y1, x2, y2, x, y], i) => {
    const from = points[points.length - 1];
    const to = newPoint(place(x, y, i, 3));
    if (!straight) {
      from.out = minus(place(x1, y1, i, 1), from.position);
      to.in = minus(place(x2, y2, i, 2), to.position);
    }
    points.push(to);
  });
  if (outline.closed && points.length > 2) joinEnds(points);
  if (points.length < 2) return null;
  if (!points.every(isWithinReach))
    throw new FormatError(
      file,
      `${where(element)} has a place that is no number or lies more than ${LIMITS.coordinate} m away.`,
    );
  points.forEach((point) => {
    point.handles = handlesOf(point);
  });
  return {
    ...defaultsOf(ShotPath),
    id: freeId(name, into.paths),
    name,
    basis: straight ? 'polyline' : 'bezier',
    closed: outline.closed,
    points,
  };
}

function isStraight({ start, cubics }: Outline): boolean {
  return cubics.every(([x1, y1, x2, y2, x, y], i) => {
    const [x0, y0] = i === 0 ? start : cubics[i - 1].slice(4);
    return x1 === x0 && y1 === y0 && x2 === x && y2 === y;
  });
}

/** Height of a point of exported path data: one for all, or one for each end, or for handles too. */
function heightsOf(
  element: { getAttribute(name: string): string | null },
  { cubics }: Outline,
): (cubic: number, handle: 1 | 2 | 3) => number {
  const heights = numbersIn(element.getAttribute(HEIGHTS) ?? '');
  if (heights.length === 1) return () => heights[0];
  if (heights.length === cubics.length + 1)
    return (cubic, handle) => heights[handle === 1 ? cubic : cubic + 1];
  if (heights.length === 3 * cubics.length + 1) return (cubic, handle) => heights[3 * cubic + handle];
  return () => 0;
}

/** Places of a run that has more than a path can hold: its own, and three between where it bends. */
function placesAlong({ start, cubics }: Outline, straight: boolean, matrix: Matrix, scale: number): Vec3[] {
  const places: Vec3[] = [];
  const add = (x: number, y: number) => {
    const p = applyToPoint(matrix, { x, y });
    places.push([p.x * scale, 0, p.y * scale]);
  };
  add(...start);
  let [fx, fy] = start;
  for (const [x1, y1, x2, y2, x, y] of cubics) {
    for (const t of straight ? [] : [0.25, 0.5, 0.75]) {
      const [a, b, c, d] = [(1 - t) ** 3, 3 * (1 - t) ** 2 * t, 3 * (1 - t) * t * t, t ** 3];
      add(a * fx + b * x1 + c * x2 + d * x, a * fy + b * y1 + c * y2 + d * y);
    }
    add(x, y);
    [fx, fy] = [x, y];
  }
  return places;
}

function newPoint(position: Vec3): PathPoint {
  return { ...PLAIN_POINT, position };
}

/** Numbers such as 1e999 are read as infinite. */
function isWithinReach({ position, in: before, out: after }: PathPoint): boolean {
  return [...position, ...before, ...after].every((value) => Math.abs(value) <= LIMITS.coordinate);
}

/** A closed run ends where it began: its last point is its first. */
function joinEnds(points: PathPoint[]): void {
  const last = points[points.length - 1];
  const gap = Math.hypot(...minus(last.position, points[0].position));
  if (gap > 1e-9) return;
  points[0].in = last.in;
  points.pop();
}

function minus(a: Vec3, b: Vec3): Vec3 {
  return [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
}

/** Smooth where both handles lie on one line, opposite each other. */
function handlesOf({ in: before, out: after }: PathPoint): PathPoint['handles'] {
  const lengths = Math.hypot(...before) * Math.hypot(...after);
  if (lengths === 0) return 'corner';
  const dot = before[0] * after[0] + before[1] * after[1] + before[2] * after[2];
  return dot / lengths < -1 + 1e-9 ? 'smooth' : 'corner';
}
