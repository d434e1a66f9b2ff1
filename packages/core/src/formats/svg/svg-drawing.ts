import type { Element, Node } from '@xmldom/xmldom';
import { applyToPoint, compose, identity, translate, type Matrix } from 'transformation-matrix';
import { FormatError } from '../format-error.js';
import { SvgStyles } from './svg-css.js';
import { boundsOf, smallest } from './svg-bounds.js';
import { UNITS, lengthOf, numbersIn } from './svg-lengths.js';
import {
  outlineOfEllipse,
  outlineOfPoints,
  outlineOfRect,
  outlinesOfPathData,
  type Outline,
} from './svg-outline.js';
import {
  TransformError,
  transformOriginOf,
  singleTransforms,
  transformOfAttribute,
  transformOfCss,
  viewBoxTransform,
  type ReferenceBox,
} from './svg-transforms.js';

/** A drawn shape. */
export interface DrawnShape {
  readonly element: Element;
  /** Its id, or that of the `<use>` that shows it. */
  readonly id: string | null;
  readonly outlines: readonly Outline[];
  /** Into the user units of the drawing. */
  readonly matrix: Matrix;
  /** Whether it has a line of any width. */
  readonly stroked: boolean;
}

/** Groups inside groups; far beyond any drawing, and within any call stack. */
const DEEPEST = 500;
/** Most elements, each counted as often as it is shown: more are made to have no end. */
const MOST_ELEMENTS = 300_000;
/** Uses of uses; a browser stops at rings alone. */
const MOST_USES = 50;

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
  'animate',
  'animateTransform',
  'animateMotion',
  'set',
  'view',
]);

/** Context that an element inherits. */
interface Around {
  readonly matrix: Matrix;
  /** The nearest viewport, in user units. */
  readonly width: number;
  readonly height: number;
  readonly font: number;
  readonly visible: boolean;
  readonly stroked: boolean;
  readonly id: string | null;
  readonly uses: readonly Element[];
  readonly depth: number;
}

/** The shapes of a drawing, in the order and place in which a browser draws them (SVG 2). */
export class SvgDrawing {
  readonly notes: string[] = [];
  readonly passedOver = new Set<string>();
  /** Metres for one user unit, where the file says how large it is meant to be. */
  readonly metresPerUnit: number | null;
  /** Of the page, in user units; null where it has none. */
  readonly page: ReferenceBox | null;
  private readonly styles: SvgStyles;
  private readonly ids = new Map<string, Element>();
  private visited = 0;

  constructor(
    private readonly root: Element,
    private readonly file: string,
  ) {
    const sheets: string[] = [];
    const all = root.getElementsByTagName('*');
    for (let i = 0; i < all.length; i++) {
      const element = all[i];
      const id = element.getAttribute('id');
      if (id && !this.ids.has(id)) this.ids.set(id, element);
      if (element.localName === 'style') sheets.push(element.textContent ?? '');
    }
    this.styles = new SvgStyles(sheets);
    const box = numbersIn(root.getAttribute('viewBox') ?? '');
    const said = (name: string) => root.getAttribute(name) ?? '';
    const [width, height] = [lengthOf(said('width'), NaN), lengthOf(said('height'), NaN)];
    const boxed = box.length === 4 && box[2] > 0 && box[3] > 0;
    this.page = boxed
      ? { x: box[0], y: box[1], width: box[2], height: box[3] }
      : width && height
        ? { x: 0, y: 0, width, height }
        : null;
    // Only a unit of the real world says how large something is.
    const real = /(in|cm|mm|q|pt|pc)\s*$/i.test(said('width'));
    const pixels = boxed && width ? width / box[2] : 1;
    this.metresPerUnit = real && width ? (pixels * 0.0254) / UNITS.in : null;
  }

  /** @throws FormatError where it has no end */
  *shapes(): Generator<DrawnShape, void, undefined> {
    const { width, height } = this.page ?? { width: 300, height: 150 };
    yield* this.walk(this.root, {
      matrix: identity(),
      width,
      height,
      font: 16,
      visible: true,
      stroked: false,
      id: null,
      uses: [],
      depth: 0,
    });
  }

  private *walk(element: Element, around: Around): Generator<DrawnShape, void, undefined> {
    const name = element.localName ?? '';
    if (SILENT.has(name) || this.styles.own(element, 'display') === 'none') return;
    if (++this.visited > MOST_ELEMENTS)
      throw new FormatError(this.file, `shows more than ${MOST_ELEMENTS} elements; expected fewer.`);
    if (around.depth > DEEPEST)
      throw new FormatError(this.file, `has groups nested more than ${DEEPEST} deep; expected fewer.`);
    const own = this.own(element, around);
    if (name === 'use') yield* this.walkUse(element, own);
    else if (name === 'svg' && around.depth > 0) yield* this.walkViewport(element, own, null);
    else if (name === 'switch') {
      const child = elementsIn(element).find(isWanted);
      if (child) yield* this.walk(child, own);
    } else if (CONTAINERS.has(name)) for (const child of elementsIn(element)) yield* this.walk(child, own);
    else {
      const outlines = this.outlinesOf(element, name, own);
      if (outlines === null) this.passedOver.add(name);
      else if (own.visible && outlines.length > 0)
        yield { element, id: own.id, outlines, matrix: own.matrix, stroked: own.stroked };
    }
  }

  /** Context inside an element. */
  private own(element: Element, around: Around): Around {
    const font = this.fontOf(element, around.font);
    const visibility = this.styles.own(element, 'visibility');
    const stroke = this.styles.own(element, 'stroke');
    const width = this.styles.own(element, 'stroke-width');
    const thin = width !== null && lengthOf(width, 1, font) === 0;
    return {
      ...around,
      font,
      matrix: compose(around.matrix, this.transformOf(element, { ...around, font })),
      visible: visibility === null ? around.visible : visibility === 'visible',
      stroked: thin ? false : stroke === null ? around.stroked : stroke !== 'none',
      id: element.getAttribute('id') || around.id,
      depth: around.depth + 1,
    };
  }

  private fontOf(element: Element, around: number): number {
    const size = this.styles.own(element, 'font-size');
    return size === null ? around : (lengthOf(size, around, around) ?? around);
  }

  private transformOf(element: Element, around: Around): Matrix {
    // That of the root places the picture on its page, as its width and height do.
    if (element === this.root) return identity();
    const css = (name: string) => this.styles.own(element, name);
    const [listed, given] = [css('transform'), element.getAttribute('transform')];
    const single = ['translate', 'rotate', 'scale'].some((name) => css(name) !== null);
    if (listed === null && !given?.trim() && !single) return identity();
    const box = this.referenceBox(element, around);
    try {
      const made =
        listed !== null
          ? transformOfCss(listed, box, around.font)
          : transformOfAttribute(given?.trim() ?? '');
      const [x, y] = transformOriginOf(css('transform-origin'), box, around.font);
      const all = compose(singleTransforms(css, box, around.font), made);
      return compose(translate(box.x + x, box.y + y), all, translate(-box.x - x, -box.y - y));
    } catch (error) {
      if (!(error instanceof TransformError)) throw error;
      this.note(
        `${where(element)} has the transform "${error.message.slice(0, 60)}", which is none: it is left out.`,
      );
      return identity();
    }
  }

  /** Box for percentages and for the origin of a transform: the viewport, or the element itself if it says so. */
  private referenceBox(element: Element, around: Around): ReferenceBox {
    const which = this.styles.own(element, 'transform-box');
    if (which !== 'fill-box' && which !== 'stroke-box' && which !== 'content-box')
      return { x: 0, y: 0, width: around.width, height: around.height };
    const corners: [number, number][] = [];
    // Bounding box of the content, in the element's own units, before its transform.
    const inside = { ...around, matrix: identity(), depth: around.depth + 1 };
    const shapes = SHAPES.has(element.localName ?? '')
      ? [{ outlines: this.outlinesOf(element, element.localName ?? '', inside) ?? [], matrix: identity() }]
      : elementsIn(element).flatMap((child) => [...this.walk(child, inside)]);
    for (const { outlines, matrix } of shapes)
      for (const outline of outlines)
        for (const place of boundsOf(outline)) {
          corners.push(applyToPoint(matrix, place) as [number, number]);
        }
    if (corners.length === 0) return { x: 0, y: 0, width: 0, height: 0 };
    const [xs, ys] = [corners.map(([x]) => x), corners.map(([, y]) => y)];
    const [x, y] = [smallest(xs), smallest(ys)];
    return { x, y, width: -smallest(xs.map((v) => -v)) - x, height: -smallest(ys.map((v) => -v)) - y };
  }

  private *walkUse(element: Element, own: Around): Generator<DrawnShape, void, undefined> {
    const href =
      element.getAttribute('href') ??
      element.getAttributeNS(XLINK, 'href') ??
      element.getAttribute('xlink:href');
    const target = href?.startsWith('#') ? this.ids.get(decoded(href.slice(1))) : undefined;
    if (!target) {
      if (href) this.note(`${where(element)} shows "${href.slice(0, 60)}", which is not in the file.`);
      return;
    }
    // A `<use>` that shows itself shows nothing.
    const inRing = own.uses.includes(target) || own.uses.length >= MOST_USES || contains(target, element);
    if (inRing) return;
    const number = (name: string, whole: number) =>
      lengthOf(this.styles.own(element, name) ?? '', whole, own.font) ?? 0;
    const moved: Around = {
      ...own,
      matrix: compose(own.matrix, translate(number('x', own.width), number('y', own.height))),
      uses: [...own.uses, target],
    };
    // A name of what is shown says less than that of what shows it.
    const named = { ...moved, id: element.getAttribute('id') || target.getAttribute('id') };
    const name = target.localName;
    if (name !== 'symbol' && name !== 'svg') {
      const shown = [...this.walk(target, named)];
      for (const shape of shown)
        yield element.getAttribute('id') ? { ...shape, id: element.getAttribute('id') } : shape;
      return;
    }
    if (this.styles.own(target, 'display') === 'none') return;
    yield* this.walkViewport(target, this.own(target, named), element);
  }

  /** An inner `<svg>` or a shown `<symbol>`: its own viewport, whose size the `<use>` may set. */
  private *walkViewport(
    element: Element,
    own: Around,
    use: Element | null,
  ): Generator<DrawnShape, void, undefined> {
    const sized = (name: 'width' | 'height', whole: number): number => {
      const text = (use && this.styles.own(use, name)) ?? this.styles.own(element, name) ?? '100%';
      return lengthOf(text, whole, own.font) ?? whole;
    };
    const placed = (name: string, whole: number): number =>
      lengthOf(this.styles.own(element, name) ?? '', whole, own.font) ?? 0;
    const [width, height] = [sized('width', own.width), sized('height', own.height)];
    if (!(width > 0) || !(height > 0)) return;
    const box = numbersIn(element.getAttribute('viewBox') ?? '');
    const boxed = box.length === 4 && box[2] > 0 && box[3] > 0;
    const fit = element.getAttribute('preserveAspectRatio') ?? '';
    const inner: Around = {
      ...own,
      matrix: compose(
        own.matrix,
        translate(placed('x', own.width), placed('y', own.height)),
        boxed ? viewBoxTransform(box, fit, width, height) : identity(),
      ),
      width: boxed ? box[2] : width,
      height: boxed ? box[3] : height,
    };
    for (const child of elementsIn(element)) yield* this.walk(child, inner);
  }

  /** The runs of a shape in its own units; null for what is none. */
  private outlinesOf(element: Element, name: string, around: Around): Outline[] | null {
    const { width, height, font } = around;
    const whole = { x: width, y: height, both: Math.hypot(width, height) / Math.SQRT2 };
    const number = (key: string, along: keyof typeof whole, fallback = 0): number => {
      const text = this.styles.own(element, key);
      if (text === null || text === 'auto') return fallback;
      const found = lengthOf(text, whole[along], font);
      if (found !== null) return found;
      this.note(
        `${where(element)} has ${key}="${text.slice(0, 40)}", which is no length: expected a number, with or without a unit.`,
      );
      return fallback;
    };
    const attributeOf = (key: string, along: keyof typeof whole) =>
      lengthOf(element.getAttribute(key) ?? '', whole[along], font) ?? 0;
    switch (name) {
      case 'path':
        return this.pathOutlines(element);
      case 'line': {
        const from: [number, number] = [attributeOf('x1', 'x'), attributeOf('y1', 'y')];
        const to: [number, number] = [attributeOf('x2', 'x'), attributeOf('y2', 'y')];
        return [outlineOfPoints([from, to], false)];
      }
      case 'polyline':
      case 'polygon':
        return this.pointsOutline(element, name === 'polygon');
      case 'circle': {
        const r = number('r', 'both');
        return ellipse(number('cx', 'x'), number('cy', 'y'), r, r);
      }
      case 'ellipse': {
        const [rx, ry] = [number('rx', 'x', NaN), number('ry', 'y', NaN)];
        return ellipse(number('cx', 'x'), number('cy', 'y'), either(rx, ry), either(ry, rx));
      }
      case 'rect': {
        const [w, h] = [number('width', 'x'), number('height', 'y')];
        if (!(w > 0) || !(h > 0)) return [];
        const [rx, ry] = [number('rx', 'x', NaN), number('ry', 'y', NaN)];
        return [outlineOfRect(number('x', 'x'), number('y', 'y'), w, h, either(rx, ry), either(ry, rx))];
      }
      default:
        return null;
    }
  }

  private pathOutlines(element: Element): Outline[] {
    const css = this.styles.own(element, 'd');
    const quoted = css === null ? null : /^path\(\s*(["'])(.*)\1\s*\)$/s.exec(css);
    const data = quoted ? quoted[2] : css === 'none' ? '' : (element.getAttribute('d') ?? '');
    const { outlines, problem } = outlinesOfPathData(data);
    if (problem !== null)
      this.note(
        `${where(element)} has path data that cannot be read from "${problem.slice(0, 40)}" on: it is drawn up to there.`,
      );
    return outlines;
  }

  private pointsOutline(element: Element, closed: boolean): Outline[] {
    const text = element.getAttribute('points') ?? '';
    const numbers = numbersIn(text);
    const points: [number, number][] = [];
    for (let i = 0; i + 1 < numbers.length; i += 2) points.push([numbers[i], numbers[i + 1]]);
    const odd = numbers.length % 2 === 1;
    if (odd || (points.length < 2 && text.trim() !== ''))
      this.note(
        `${where(element)} has points="${text.trim().slice(0, 40)}": it is drawn up to the last pair of numbers.`,
      );
    return points.length < 2 ? [] : [outlineOfPoints(points, closed)];
  }

  private note(text: string): void {
    if (this.notes.length < MOST_NOTES && !this.notes.includes(text)) this.notes.push(text);
  }
}

const MOST_NOTES = 20;
const XLINK = 'http://www.w3.org/1999/xlink';
const SHAPES = new Set(['path', 'line', 'polyline', 'polygon', 'circle', 'ellipse', 'rect']);

/** A radius that is missing or invalid equals the other one. */
const either = (one: number, other: number): number => (one >= 0 ? one : other >= 0 ? other : 0);

function ellipse(cx: number, cy: number, rx: number, ry: number): Outline[] {
  return rx > 0 && ry > 0 ? [outlineOfEllipse(cx, cy, rx, ry)] : [];
}

function elementsIn(parent: Element): Element[] {
  const found: Element[] = [];
  for (let child: Node | null = parent.firstChild; child; child = child.nextSibling)
    if (child.nodeType === 1) found.push(child as Element);
  return found;
}

function contains(outer: Element, inner: Element): boolean {
  for (let node: Node | null = inner; node; node = node.parentNode) if (node === outer) return true;
  return false;
}

/** Of a `<switch>` the first child is drawn that asks for nothing we cannot do. */
function isWanted(element: Element): boolean {
  if (SILENT.has(element.localName ?? '')) return false;
  const extensions = element.getAttribute('requiredExtensions');
  if (extensions !== null) return false;
  const languages = element.getAttribute('systemLanguage');
  return languages === null || languages.split(',').some((one) => /^\s*en(-|\s*$)/i.test(one));
}

function decoded(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

/** An element, for a message. */
export function where(element: Element): string {
  const id = element.getAttribute('id')?.slice(0, 60);
  const line = (element as unknown as { lineNumber?: number }).lineNumber;
  return `<${element.nodeName.slice(0, 40)}${id ? ` id="${id}"` : ''}>${line ? ` in line ${line}` : ''}`;
}
