import { LABEL_FONT } from '../../ui/theme/fonts';

/** Shapes of a drawing, in its own pixels: the same for a canvas as for an SVG file. */
export type Shape =
  | {
      readonly kind: 'path';
      readonly d: string;
      readonly stroke: string;
      readonly width: number;
      readonly dash?: string;
    }
  | {
      readonly kind: 'box';
      readonly x: number;
      readonly y: number;
      readonly width: number;
      readonly height: number;
      readonly fill: string;
    }
  | {
      readonly kind: 'text';
      readonly x: number;
      readonly y: number;
      readonly text: string;
      readonly size: number;
      readonly fill: string;
      readonly anchor: 'start' | 'middle' | 'end';
      readonly weight?: number;
    };

/** A level or upright line. */
export const lineShape = (
  [x1, y1, x2, y2]: readonly [number, number, number, number],
  stroke: string,
  dash?: string,
): Shape => ({
  kind: 'path',
  d: `M${round(x1)} ${round(y1)}L${round(x2)} ${round(y2)}`,
  stroke,
  width: 1,
  dash,
});

/** A drawing as an SVG file. */
export function svgOf(shapes: readonly Shape[], width: number, height: number): string {
  const elements = shapes.map((shape) => {
    if (shape.kind === 'box')
      return `<rect x="${round(shape.x)}" y="${round(shape.y)}" width="${round(shape.width)}" height="${round(shape.height)}" fill="${shape.fill}"/>`;
    if (shape.kind === 'path') {
      const dash = shape.dash ? ` stroke-dasharray="${shape.dash}"` : '';
      return `<path d="${shape.d}" fill="none" stroke="${shape.stroke}" stroke-width="${shape.width}" stroke-linejoin="round"${dash}/>`;
    }
    return `<text x="${round(shape.x)}" y="${round(shape.y)}" font-size="${shape.size}" font-weight="${shape.weight ?? 500}" fill="${shape.fill}" text-anchor="${shape.anchor}">${escaped(shape.text)}</text>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" font-family="${escaped(LABEL_FONT.replaceAll("'", ''))}">
${elements.join('\n')}
</svg>
`;
}

/** Draws the same on a canvas. */
export function paintShapes(
  target: CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D,
  shapes: readonly Shape[],
): void {
  const ALIGN = { start: 'left', middle: 'center', end: 'right' } as const;
  for (const shape of shapes) {
    target.save();
    if (shape.kind === 'box') {
      target.fillStyle = shape.fill;
      target.fillRect(shape.x, shape.y, shape.width, shape.height);
    } else if (shape.kind === 'path') {
      target.strokeStyle = shape.stroke;
      target.lineWidth = shape.width;
      target.lineJoin = 'round';
      target.setLineDash(shape.dash?.split(' ').map(Number) ?? []);
      target.stroke(new Path2D(shape.d));
    } else {
      target.font = `${shape.weight ?? 500} ${shape.size}px ${LABEL_FONT}`;
      target.textAlign = ALIGN[shape.anchor];
      target.fillStyle = shape.fill;
      target.fillText(shape.text, shape.x, shape.y);
    }
    target.restore();
  }
}

const round = (value: number): number => Number(value.toFixed(2));

const escaped = (text: string): string =>
  text.replace(
    /[&<>"]/g,
    (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign] ?? sign,
  );
