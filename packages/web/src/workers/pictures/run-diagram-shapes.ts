import type { Rider, Shot } from '@fleet-rail/core';
import { scaleLinear } from 'd3-scale';
import {
  axisTicks,
  diagramScales,
  frameLabel,
  MARGIN,
  type DiagramBand,
  type DiagramScales,
} from '../../timeline/diagram/diagram-scales';
import { linePath } from '../../timeline/diagram/line-path';
import { passedMarks } from '../../timeline/diagram/passed-marks';
import { stripLine } from '../../timeline/diagram/strip-channel';
import type { DiagramShown } from '../../state/shown';
import type { Evaluation } from '../evaluation/evaluation';
import { lineColor, type Theme } from '../../ui/theme/theme';
import { showNumber } from '../../ui/quantity';
import { lineShape, type Shape } from './shapes';

/** Contents of a drawn run diagram. */
export interface DrawnDiagram {
  readonly shot: Shot;
  readonly evaluation: Evaluation;
  readonly width: number;
  readonly height: number;
  readonly theme: Theme;
  readonly shown: DiagramShown;
  /** Rider whose path it shows and whose line stands out; null for the first that is ridden. */
  readonly selected: Rider | null;
  /** Frames to be marked. */
  readonly marked?: readonly number[];
}

/** The run diagram as a drawing: distances over time, path by path, and speeds below. */
export function runDiagramShapes(drawn: DrawnDiagram): Shape[] {
  const { shot, evaluation, width, height, theme, shown, selected, marked = [] } = drawn;
  const scales = diagramScales(shot, evaluation, { width, height, strip: 0.24 * height }, shown, selected);
  const { x, bands } = scales;
  const foot = height - MARGIN.bottom;
  return [
    { kind: 'box', x: 0, y: 0, width, height, fill: theme.panel },
    ...axisTicks(x, shown.axis, shot, Math.max(2, Math.floor(width / 90))).map((tick): Shape => ({
      ...text(x(tick), height - 5, frameLabel(tick, shown.axis, shot), theme.quiet),
      anchor: 'middle',
    })),
    ...marked.map((frame) => lineShape([x(frame), MARGIN.top - 6, x(frame), foot], theme.signal, '2 4')),
    ...bands.flatMap((band) => [...bandGround(drawn, band), ...bandLines(drawn, band, x)]),
    ...speeds(drawn, scales),
  ];
}

function bandGround({ shot, evaluation, width, theme }: DrawnDiagram, band: DiagramBand): Shape[] {
  const { y, top, foot, pathId, riders } = band;
  const path = shot.paths.find(({ id }) => id === pathId);
  const ticks = Math.max(1, Math.min(5, Math.floor((foot - top) / 34)));
  const right = width - MARGIN.right;
  const [low, high] = y.domain();
  return [
    ...y.ticks(ticks).flatMap((tick): Shape[] => [
      lineShape([MARGIN.left, y(tick), right, y(tick)], theme.hairline),
      {
        ...text(MARGIN.left - 8, y(tick) + 4, `${showNumber(tick, 2)} m`, theme.quiet),
        anchor: 'end',
      },
    ]),
    ...passedMarks(path, evaluation.paths.get(pathId), [low, high]).flatMap(({ mark, at }): Shape[] => [
      lineShape([MARGIN.left, y(at), right, y(at)], theme.quiet),
      text(MARGIN.left + 4, y(at) - 4, mark.name, theme.ink),
    ]),
    {
      ...text(right - 4, foot - 6, path?.name ?? `${riders[0].badge} by hand`, theme.ink),
      anchor: 'end',
    },
  ];
}

function bandLines(
  { evaluation, width, selected }: DrawnDiagram,
  { riders, y }: DiagramBand,
  x: DiagramScales['x'],
): Shape[] {
  return riders.flatMap(({ id, color }): Shape[] => {
    const poses = evaluation.riders.get(id)?.poses;
    if (poses === undefined) return [];
    const d = linePath(poses, 'distances', evaluation, x, y, width);
    return [{ kind: 'path', d, stroke: lineColor(color), width: id === selected?.id ? 3 : 1.75 }];
  });
}

function speeds(
  { shot, evaluation, width, theme }: DrawnDiagram,
  { x, bands, strip }: DiagramScales,
): Shape[] {
  const lines = bands
    .flatMap(({ riders }) => riders)
    .flatMap((rider) => {
      const evaluated = evaluation.riders.get(rider.id);
      return evaluated ? [{ rider, ...stripLine('speed', evaluated, evaluation, shot.fps) }] : [];
    });
  const low = Math.min(0, ...lines.map((one) => one.low));
  const high = Math.max(1, ...lines.map((one) => one.high));
  const y = scaleLinear([low, high * 1.12], [strip.foot, strip.top]);
  return [
    ...y.ticks(2).flatMap((tick): Shape[] => [
      lineShape([MARGIN.left, y(tick), width - MARGIN.right, y(tick)], theme.hairline, '2 3'),
      {
        ...text(MARGIN.left - 8, y(tick) + 4, `${showNumber(tick, 2)} m/s`, theme.quiet),
        anchor: 'end',
      },
    ]),
    ...lines.map(({ rider, values }): Shape => ({
      kind: 'path',
      d: linePath(values, 'values', evaluation, x, y, width),
      stroke: lineColor(rider.color),
      width: 1.5,
    })),
  ];
}

const text = (x: number, y: number, content: string, fill: string): Extract<Shape, { kind: 'text' }> => ({
  kind: 'text',
  x,
  y,
  text: content,
  size: 11,
  fill,
  anchor: 'start',
});
