import { compose, identity, rotate, scale, skew, translate, type Matrix } from 'transformation-matrix';
import { lengthOf, numbersIn } from './svg-lengths.js';

/** The box that a transform's percentages and origin are of. */
export interface ReferenceBox {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** A transform that is no list of what the grammar has. */
export class TransformError extends Error {}

const CALL = /\s*,?\s*([a-zA-Z0-9]+)\s*\(([^()]*)\)/y;

/** Functions of a transform list, which may follow each other without separators. */
function callsIn(text: string): [string, string][] {
  const calls: [string, string][] = [];
  let at = 0;
  for (;;) {
    CALL.lastIndex = at;
    const match = CALL.exec(text);
    if (!match) break;
    calls.push([match[1], match[2]]);
    at = CALL.lastIndex;
  }
  if (text.slice(at).trim() !== '') throw new TransformError(text);
  return calls;
}

/**
 * A `transform` attribute (SVG 1.1, 7.6): numbers in user units and degrees.
 *
 * @throws TransformError where it is none; a browser draws such an element as if it had no transform
 */
export function transformOfAttribute(text: string): Matrix {
  return compose([
    identity(),
    ...callsIn(text).map(([name, inside]) => {
      const n = numbersIn(inside);
      const is = (wanted: string, ...counts: number[]) => name === wanted && counts.includes(n.length);
      if (is('matrix', 6)) return { a: n[0], b: n[1], c: n[2], d: n[3], e: n[4], f: n[5] };
      if (is('translate', 1, 2)) return translate(n[0], n[1] ?? 0);
      if (is('scale', 1, 2)) return scale(n[0], n[1] ?? n[0]);
      if (is('rotate', 1)) return rotate(radians(n[0]));
      if (is('rotate', 3)) return rotate(radians(n[0]), n[1], n[2]);
      if (is('skewX', 1)) return skew(radians(n[0]), 0);
      if (is('skewY', 1)) return skew(0, radians(n[0]));
      throw new TransformError(text);
    }),
  ]);
}

/**
 * A CSS `transform` (CSS Transforms 1 and 2), of what stays in the plane.
 *
 * @throws TransformError where it is none
 */
export function transformOfCss(text: string, box: ReferenceBox, font: number): Matrix {
  if (text === 'none') return identity();
  const length = (value: string, whole: number): number => {
    const found = lengthOf(value, whole, font);
    if (found === null) throw new TransformError(text);
    return found;
  };
  const times = (value: string): number => {
    const match = /^([+-]?[\d.]+(?:e[+-]?\d+)?)(%?)$/i.exec(value.trim());
    if (!match) throw new TransformError(text);
    return Number(match[1]) / (match[2] ? 100 : 1);
  };
  return compose([
    identity(),
    ...callsIn(text).map(([call, inside]) => {
      const name = call.toLowerCase();
      const args = inside.split(/\s*,\s*/).map((one) => one.trim());
      switch (name) {
        case 'matrix': {
          const [a, b, c, d, e, f] = args.map(times);
          return { a, b, c, d, e, f };
        }
        case 'matrix3d': {
          const m = args.map(times);
          return { a: m[0], b: m[1], c: m[4], d: m[5], e: m[12], f: m[13] };
        }
        case 'translate':
        case 'translate3d':
          return translate(length(args[0], box.width), args[1] ? length(args[1], box.height) : 0);
        case 'translatex':
          return translate(length(args[0], box.width), 0);
        case 'translatey':
          return translate(0, length(args[0], box.height));
        case 'scale':
        case 'scale3d':
          return scale(times(args[0]), times(args[1] ?? args[0]));
        case 'scalex':
          return scale(times(args[0]), 1);
        case 'scaley':
          return scale(1, times(args[0]));
        case 'rotate':
        case 'rotatez':
          return rotate(angle(args[0], text));
        case 'skew':
          return skew(angle(args[0], text), args[1] ? angle(args[1], text) : 0);
        case 'skewx':
          return skew(angle(args[0], text), 0);
        case 'skewy':
          return skew(0, angle(args[0], text));
        case 'translatez':
        case 'scalez':
        case 'perspective':
          return identity();
        default:
          throw new TransformError(text);
      }
    }),
  ]);
}

const TURNS: Readonly<Record<string, number>> = {
  deg: Math.PI / 180,
  grad: Math.PI / 200,
  rad: 1,
  turn: 2 * Math.PI,
};

function angle(value: string, text: string): number {
  const match = /^([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)(deg|grad|rad|turn)?$/i.exec(value.trim());
  if (!match || (!match[2] && Number(match[1]) !== 0)) throw new TransformError(text);
  return Number(match[1]) * TURNS[(match[2] ?? 'deg').toLowerCase()];
}

/** The individual properties `translate`, `rotate` and `scale`, which go before `transform` in that order. */
export function singleTransforms(
  value: (name: string) => string | null,
  box: ReferenceBox,
  font: number,
): Matrix {
  const call = (name: string, text: string) => {
    const parts = text.trim().split(/\s+/).slice(0, 2);
    if (text === 'none' || parts.some((part) => /^[xyz]$/i.test(part))) return identity();
    try {
      return transformOfCss(`${name}(${parts.join(',')})`, box, font);
    } catch {
      return identity();
    }
  };
  return compose([
    identity(),
    ...['translate', 'rotate', 'scale'].map((name) => {
      const text = value(name);
      return text === null ? identity() : call(name, text);
    }),
  ]);
}

const SIDES: Readonly<Record<string, number>> = { left: 0, top: 0, center: 50, right: 100, bottom: 100 };

/** The place that a transform is about, from the box's own corner. */
export function transformOriginOf(text: string | null, box: ReferenceBox, font: number): [number, number] {
  if (text === null) return [0, 0];
  const words = text.trim().toLowerCase().split(/\s+/);
  const turned = /^(top|bottom)$/.test(words[0]) || /^(left|right)$/.test(words[1] ?? '');
  const [first, second] = turned ? [words[1], words[0]] : words;
  const value = (word: string | undefined, whole: number): number => {
    if (word === undefined) return whole / 2;
    const side = SIDES[word];
    return side === undefined ? (lengthOf(word, whole, font) ?? 0) : (side * whole) / 100;
  };
  return [value(first, box.width), value(second, box.height)];
}

const radians = (degrees: number): number => (degrees * Math.PI) / 180;

/** How a view box is fitted into the room it is given (SVG 2, 8.6). */
export function viewBoxTransform(
  viewBox: readonly number[],
  fit: string,
  width: number,
  height: number,
): Matrix {
  const [x, y, w, h] = viewBox;
  if (!(w > 0) || !(h > 0)) return identity();
  let [sx, sy] = [width / w, height / h];
  const match = /^\s*(?:defer\s+)?(none|x(Min|Mid|Max)Y(Min|Mid|Max))\s*(meet|slice)?\s*$/.exec(fit);
  const [, align, alongX, alongY, how] = match ?? [null, 'xMidYMid', 'Mid', 'Mid', 'meet'];
  if (align === 'none') return compose(scale(sx, sy), translate(-x, -y));
  sx = sy = how === 'slice' ? Math.max(sx, sy) : Math.min(sx, sy);
  const part = { Min: 0, Mid: 0.5, Max: 1 };
  const left = (width - w * sx) * part[alongX as 'Min'];
  const top = (height - h * sy) * part[alongY as 'Min'];
  return compose(translate(left, top), scale(sx, sy), translate(-x, -y));
}
