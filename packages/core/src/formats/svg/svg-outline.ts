import { SVGPathData, SVGPathDataParser, SVGPathDataTransformer, type SVGCommand } from 'svg-pathdata';
import { arcToCubics, type PlaneCubic } from './svg-arc.js';

/** One unbroken run of a drawing: its first place, then cubics; a straight run has its handles on its ends. */
export interface Outline {
  readonly start: [number, number];
  readonly cubics: PlaneCubic[];
  readonly closed: boolean;
}

/**
 * The runs of an SVG path's `d`, every command reduced to cubics. Quadratics are raised exactly. Data that cannot be read counts up to
 * where that begins (SVG 2, 9.5.4).
 *
 * @returns with the text from there on; null where all of it was read
 */
export function outlinesOfPathData(d: string): { outlines: Outline[]; problem: string | null } {
  const { commands: read, problem } = commandsOf(d);
  const commands = new SVGPathData(read)
    .toAbs()
    .transform(SVGPathDataTransformer.NORMALIZE_ST())
    .transform(SVGPathDataTransformer.QT_TO_C()).commands;
  const outlines: Outline[] = [];
  let start: [number, number] = [0, 0];
  let here: [number, number] = [0, 0];
  let cubics: PlaneCubic[] = [];
  const finish = (closed: boolean) => {
    if (cubics.length > 0) outlines.push({ start, cubics, closed });
    cubics = [];
  };
  const lineTo = (x: number, y: number) => {
    if (x !== here[0] || y !== here[1]) cubics.push([...here, x, y, x, y]);
    here = [x, y];
  };
  for (const command of commands) {
    switch (command.type) {
      case SVGPathData.MOVE_TO:
        finish(false);
        start = here = [command.x, command.y];
        break;
      case SVGPathData.LINE_TO:
        lineTo(command.x, command.y);
        break;
      // The library also turns these into lines for straight curves, whose handles may reach beyond their ends.
      case SVGPathData.HORIZ_LINE_TO:
        lineTo(command.x, here[1]);
        break;
      case SVGPathData.VERT_LINE_TO:
        lineTo(here[0], command.y);
        break;
      case SVGPathData.CURVE_TO:
        cubics.push([command.x1, command.y1, command.x2, command.y2, command.x, command.y]);
        here = [command.x, command.y];
        break;
      case SVGPathData.ARC: {
        const { rX, rY, xRot, lArcFlag, sweepFlag, x, y } = command;
        const turn = (xRot * Math.PI) / 180;
        cubics.push(...arcToCubics(here[0], here[1], rX, rY, turn, !!lArcFlag, !!sweepFlag, x, y));
        here = [x, y];
        break;
      }
      case SVGPathData.CLOSE_PATH:
        lineTo(start[0], start[1]);
        finish(true);
        here = start;
        break;
      default:
        throw new Error('a command that was not reduced');
    }
  }
  finish(false);
  return { outlines, problem };
}

function commandsOf(d: string): { commands: SVGCommand[]; problem: string | null } {
  const parser = new SVGPathDataParser();
  const commands: SVGCommand[] = [];
  let taken = 0;
  try {
    // One command at a time, so that those before an unreadable one are kept.
    for (const part of d.match(/[a-z][^a-df-z]*|^[^a-z]+/gi) ?? []) {
      parser.parse(part, commands);
      taken += part.length;
    }
    parser.finish(commands);
    return { commands, problem: null };
  } catch {
    return { commands: begun(commands), problem: d.slice(taken).trim() || d.trim().slice(-20) };
  }
}

/** Nothing is drawn before the first move. */
const begun = (commands: SVGCommand[]): SVGCommand[] =>
  commands[0]?.type === SVGPathData.MOVE_TO ? commands : [];

/** A run of straight lines. */
export function outlineOfPoints(points: readonly [number, number][], closed: boolean): Outline {
  const cubics: PlaneCubic[] = [];
  const stops = closed ? [...points, points[0]] : points;
  for (let i = 1; i < stops.length; i++) {
    const [x0, y0] = stops[i - 1];
    const [x, y] = stops[i];
    if (x !== x0 || y !== y0) cubics.push([x0, y0, x, y, x, y]);
  }
  return { start: points[0], cubics, closed };
}

/** An ellipse, from its rightmost place on, clockwise on the page as SVG has it. */
export function outlineOfEllipse(cx: number, cy: number, rx: number, ry: number): Outline {
  const half = (from: number, to: number) => arcToCubics(from, cy, rx, ry, 0, false, true, to, cy);
  return {
    start: [cx + rx, cy],
    cubics: [...half(cx + rx, cx - rx), ...half(cx - rx, cx + rx)],
    closed: true,
  };
}

/** A rectangle, its corners rounded by elliptical arcs where radii are given. */
export function outlineOfRect(
  x: number,
  y: number,
  width: number,
  height: number,
  rx: number,
  ry: number,
): Outline {
  const a = Math.min(rx, width / 2);
  const b = Math.min(ry, height / 2);
  const right = x + width;
  const bottom = y + height;
  if (a <= 0 || b <= 0) {
    return outlineOfPoints(
      [
        [x, y],
        [right, y],
        [right, bottom],
        [x, bottom],
      ],
      true,
    );
  }
  const d = `M${x + a} ${y}H${right - a}A${a} ${b} 0 0 1 ${right} ${y + b}V${bottom - b}A${a} ${b} 0 0 1 ${right - a} ${bottom}H${x + a}A${a} ${b} 0 0 1 ${x} ${bottom - b}V${y + b}A${a} ${b} 0 0 1 ${x + a} ${y}Z`;
  return outlinesOfPathData(d).outlines[0];
}
