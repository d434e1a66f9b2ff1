import { DOMParser, onErrorStopParsing, type Element, type Node } from '@xmldom/xmldom';
import {
  applyToPoint,
  compose,
  fromDefinition,
  fromTransformAttribute,
  identity,
  type Matrix,
} from 'transformation-matrix';
import { LIMITS } from '../document/limits.js';
import { defaultsOf } from '../document/defaults.js';
import { freeId } from '../document/free-name.js';
import { PathPoint, ShotPath } from '../document/shot-path.js';
import type { Vec3 } from '../math/vec.js';
import { FormatError } from './format-error.js';
import {
  outlineOfEllipse,
  outlineOfPoints,
  outlineOfRect,
  outlinesOfPathData,
  type Outline,
} from './svg-outline.js';

/** What an SVG file gave: its paths, and drawn things in it that are not paths. */
export interface SvgPaths {
  readonly paths: ShotPath[];
  /** Names of elements that were passed over, as "text" or "use". */
  readonly passedOver: string[];
}

/** Shared by all points: the document is never changed in place. */
const PLAIN_POINT = defaultsOf(PathPoint);

/** Groups inside groups; far beyond any drawing, and within any call stack. */
const DEEPEST = 500;

const CONTAINERS = new Set(['svg', 'g', 'a', 'switch']);
const SILENT = new Set([
  'title',
  'desc',
  'metadata',
  'style',
  'defs',
  'script',
  'clipPath',
  'mask',
  'marker',
  'symbol',
  'pattern',
  'linearGradient',
  'radialGradient',
  'filter',
]);

/**
 * The paths of an SVG file on the ground: x → X, y → Z, height 0. Each unbroken run becomes a path:
 * straight runs a polyline, anything else a Bézier path. Arcs become cubics within 4e-6 of their radius.
 *
 * @param file  the file's name, for messages and for naming paths without an id
 * @param scale metres for one user unit
 * @param onProgress told the part that is done, from time to time
 * @throws FormatError where the file is no SVG, has no path, or a path cannot be read
 */
export function readSvg(
  text: string,
  file: string,
  scale = 1,
  onProgress?: (part: number) => void,
): SvgPaths {
  const root = parseXml(text, file);
  // Reading the XML takes about as long as taking its outlines up.
  onProgress?.(0.5);
  const total = root.getElementsByTagName('*').length;
  let visited = 0;
  const paths: ShotPath[] = [];
  const passedOver = new Set<string>();
  const base = file.replace(/^.*[\\/]/, '').replace(/\.svg$/i, '') || 'path';
  walk(
    root,
    identity(),
    file,
    (element, outlines, matrix) => {
      onProgress?.(0.5 + (0.5 * ++visited) / total);
      outlines.forEach((outline, i) => {
        const named = element.getAttribute('id') || base;
        const name = outlines.length > 1 ? `${named} ${i + 1}` : named;
        const path = pathOf(outline, matrix, scale, name.slice(0, LIMITS.textLength), freeId(name, paths));
        if (path.points.length < 2) return;
        if (path.points.length > LIMITS.pointsPerPath) {
          throw new FormatError(
            file,
            `path "${name}" has ${path.points.length} points; at most ${LIMITS.pointsPerPath} are taken.`,
          );
        }
        if (!path.points.every((point) => isWithinReach(point))) {
          throw new FormatError(
            file,
            `${where(element)} has a place that is no number or lies more than ${LIMITS.coordinate} m away.`,
          );
        }
        paths.push(path);
        // Said at once: what is too much already need not be worked through.
        if (paths.length > LIMITS.paths)
          throw new FormatError(file, `holds more than ${LIMITS.paths} paths; at most that many are taken.`);
      });
    },
    passedOver,
  );
  if (paths.length === 0) {
    const others = passedOver.size > 0 ? ` It holds only: ${[...passedOver].join(', ')}.` : '';
    throw new FormatError(
      file,
      `there is no path in this SVG; expected a path, line, polyline, polygon, circle, ellipse or rect.${others}`,
    );
  }
  return { paths, passedOver: [...passedOver] };
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

/** Where in the text something is wrong, as far as that is known; what the XML library says of it is for programmers. */
function placeOf(error: unknown): string {
  const { lineNumber, columnNumber } =
    (error as { locator?: { lineNumber?: number; columnNumber?: number } }).locator ?? {};
  return lineNumber ? ` (line ${lineNumber}, column ${columnNumber ?? 1})` : '';
}

type Visit = (element: Element, outlines: Outline[], matrix: Matrix) => void;

function walk(
  element: Element,
  outer: Matrix,
  file: string,
  visit: Visit,
  passedOver: Set<string>,
  depth = 0,
): void {
  const name = element.localName ?? '';
  if (SILENT.has(name) || isHidden(element)) return;
  if (depth > DEEPEST) {
    throw new FormatError(file, `has groups nested more than ${DEEPEST} deep; expected fewer.`);
  }
  const matrix = compose(outer, transformOf(element, file));
  if (CONTAINERS.has(name)) {
    for (let child: Node | null = element.firstChild; child; child = child.nextSibling) {
      if (child.nodeType === 1) walk(child as Element, matrix, file, visit, passedOver, depth + 1);
    }
    return;
  }
  const outlines = outlinesOf(element, name, file);
  if (outlines === null) passedOver.add(name);
  else visit(element, outlines, matrix);
}

function isHidden(element: Element): boolean {
  if (element.getAttribute('display') === 'none') return true;
  return /(^|;)\s*display\s*:\s*none/.test(element.getAttribute('style') ?? '');
}

function transformOf(element: Element, file: string): Matrix {
  const text = element.getAttribute('transform');
  if (!text?.trim()) return identity();
  try {
    return compose(fromDefinition(fromTransformAttribute(text)));
  } catch {
    throw new FormatError(
      file,
      `${where(element)} has the transform "${text.slice(0, 60)}"; expected matrix, translate, scale, rotate, skewX or skewY.`,
    );
  }
}

function where(element: Element): string {
  const id = element.getAttribute('id')?.slice(0, 60);
  const line = (element as unknown as { lineNumber?: number }).lineNumber;
  return `<${element.nodeName.slice(0, 40)}${id ? ` id="${id}"` : ''}>${line ? ` in line ${line}` : ''}`;
}

function outlinesOf(element: Element, name: string, file: string): Outline[] | null {
  const number = (key: string, fallback = 0): number => {
    const text = element.getAttribute(key);
    if (text === null || text.trim() === '' || text.trim() === 'auto') return fallback;
    const match = /^\s*([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)\s*(px)?\s*$/i.exec(text);
    if (!match || !Number.isFinite(Number(match[1])))
      throw new FormatError(
        file,
        `${where(element)} has ${key}="${text.slice(0, 40)}"; expected a number in user units.`,
      );
    return Number(match[1]);
  };
  switch (name) {
    case 'path':
      return pathOutlines(element, file);
    case 'line':
      return [
        outlineOfPoints(
          [
            [number('x1'), number('y1')],
            [number('x2'), number('y2')],
          ],
          false,
        ),
      ];
    case 'polyline':
    case 'polygon':
      return pointsOutline(element, name === 'polygon', file);
    case 'circle':
      return ellipse(number('cx'), number('cy'), number('r'), number('r'));
    case 'ellipse':
      return ellipse(number('cx'), number('cy'), number('rx'), number('ry'));
    case 'rect': {
      const rx = number('rx', NaN);
      const ry = number('ry', NaN);
      const width = number('width');
      const height = number('height');
      if (width <= 0 || height <= 0) return [];
      return [outlineOfRect(number('x'), number('y'), width, height, rx || ry || 0, ry || rx || 0)];
    }
    default:
      return null;
  }
}

function ellipse(cx: number, cy: number, rx: number, ry: number): Outline[] {
  return rx > 0 && ry > 0 ? [outlineOfEllipse(cx, cy, rx, ry)] : [];
}

function pathOutlines(element: Element, file: string): Outline[] {
  const d = element.getAttribute('d') ?? '';
  if (d.trim() === '') return [];
  try {
    return outlinesOfPathData(d);
  } catch (error) {
    const reason = (error as Error).message.split('\n')[0].slice(0, 100);
    throw new FormatError(
      file,
      `${where(element)} has path data that cannot be read (${reason}); expected commands M L H V C S Q T A Z with numbers.`,
    );
  }
}

function pointsOutline(element: Element, closed: boolean, file: string): Outline[] {
  const text = (element.getAttribute('points') ?? '').trim();
  if (text === '') return [];
  const numbers = text.split(/[\s,]+/).map(Number);
  if (numbers.length % 2 === 1 || !numbers.every(Number.isFinite)) {
    throw new FormatError(
      file,
      `${where(element)} has points="${text.slice(0, 40)}"; expected pairs of numbers.`,
    );
  }
  const points: [number, number][] = [];
  for (let i = 0; i < numbers.length; i += 2) points.push([numbers[i], numbers[i + 1]]);
  return points.length < 2 ? [] : [outlineOfPoints(points, closed)];
}

function pathOf(outline: Outline, matrix: Matrix, scale: number, name: string, id: string): ShotPath {
  const place = (x: number, y: number): Vec3 => {
    const p = applyToPoint(matrix, { x, y });
    return [p.x * scale, 0, p.y * scale];
  };
  const straight = outline.cubics.every(([x1, y1, x2, y2, x, y], i) => {
    const [x0, y0] = i === 0 ? outline.start : outline.cubics[i - 1].slice(4);
    return x1 === x0 && y1 === y0 && x2 === x && y2 === y;
  });
  const points = [newPoint(place(...outline.start))];
  for (const [x1, y1, x2, y2, x, y] of outline.cubics) {
    const from = points[points.length - 1];
    const to = newPoint(place(x, y));
    from.out = minus(place(x1, y1), from.position);
    to.in = minus(place(x2, y2), to.position);
    points.push(to);
  }
  if (outline.closed && points.length > 2) joinEnds(points);
  points.forEach((point) => {
    point.handles = handlesOf(point);
  });
  return {
    ...defaultsOf(ShotPath),
    id,
    name,
    basis: straight ? 'polyline' : 'bezier',
    closed: outline.closed,
    points,
  };
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
  return [a[0] - b[0], 0, a[2] - b[2]];
}

/** Smooth where both handles lie on one line, opposite each other. */
function handlesOf({ in: before, out: after }: PathPoint): PathPoint['handles'] {
  const lengths = Math.hypot(...before) * Math.hypot(...after);
  if (lengths === 0) return 'corner';
  const dot = before[0] * after[0] + before[2] * after[2];
  return dot / lengths < -1 + 1e-9 ? 'smooth' : 'corner';
}
