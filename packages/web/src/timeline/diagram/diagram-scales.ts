import { POSE, type Rider, type Shot } from '@fleet-rail/core';
import { scaleLinear, type ScaleLinear } from 'd3-scale';
import type { Evaluation } from '../../workers/evaluation/evaluation';
import type { DiagramShown } from '../../state/desk-store';

export const MARGIN = { left: 56, right: 14, top: 20, bottom: 18 };

type Scale = ScaleLinear<number, number>;

/** One path's part of the diagram: its riders' distances, up. */
export interface DiagramBand {
  readonly pathId: string;
  readonly riders: readonly Rider[];
  readonly y: Scale;
  readonly top: number;
  readonly foot: number;
}

/** Scales from frames to across, and of each path from metres to up, in pixels of the diagram. */
export interface DiagramScales {
  readonly x: Scale;
  readonly bands: readonly DiagramBand[];
  /** Position of the strip below them. */
  readonly strip: { readonly top: number; readonly foot: number };
}

/** Pixels between two bands. */
const GUTTER = 10;

/** Fits the scales to what the riders do, or to the part of it that is shown. */
export function diagramScales(
  shot: Shot,
  evaluation: Evaluation | null,
  size: { readonly width: number; readonly height: number; readonly strip: number },
  shown: DiagramShown,
  selected: Rider | null,
): DiagramScales {
  const { first, last } = shot.range;
  const right = Math.max(MARGIN.left + 10, size.width - MARGIN.right);
  const foot = size.height - MARGIN.bottom;
  const bottom = foot - size.strip - (size.strip > 0 ? 8 : 0);
  const [from, to] = shown.frames ?? [first, Math.max(last, first + 1)];
  const all = bandsOf(shot, shown, selected);
  const room = (bottom - MARGIN.top - GUTTER * (all.length - 1)) / Math.max(1, all.length);
  const bands = all.map(({ pathId, riders }, i): DiagramBand => {
    const top = MARGIN.top + i * (room + GUTTER);
    const isOwn = pathId === selected?.attachment?.path;
    const [low, high] = (isOwn && shown.metres) || extent(evaluation, riders, POSE.distance);
    const headroom = isOwn && shown.metres ? 0 : (high - low) * 0.04;
    return {
      pathId,
      riders,
      y: scaleLinear([low, high + headroom], [top + room, top]),
      top,
      foot: top + room,
    };
  });
  return {
    x: scaleLinear([from, to], [MARGIN.left, right]),
    bands,
    strip: { top: foot - size.strip, foot },
  };
}

/** The band of a rider that is moved by hand, as no path is called; null for any other. */
export const handBand = ({ id, attachment, transformKeys, frozen }: Rider): string | null =>
  attachment === null && transformKeys !== null && frozen === null ? `by hand ${id}` : null;

/** Path of the selected rider, or its hand track; else the first that is ridden; or all paths. */
function bandsOf(
  { paths, riders }: Shot,
  shown: DiagramShown,
  selected: Rider | null,
): Pick<DiagramBand, 'pathId' | 'riders'>[] {
  const ridden = paths.flatMap(({ id }) => {
    const on = riders.filter(({ attachment }) => attachment?.path === id);
    return on.length > 0 ? [{ pathId: id, riders: on }] : [];
  });
  const byHand = riders.flatMap((rider) => {
    const pathId = handBand(rider);
    return pathId === null ? [] : [{ pathId, riders: [rider] }];
  });
  const all = [...ridden, ...byHand];
  if (shown.paths === 'all') return all;
  const wanted = selected && (handBand(selected) ?? selected.attachment?.path);
  return [all.find(({ pathId }) => pathId === wanted) ?? all[0]].filter((band) => band !== undefined);
}

/** The lowest and the highest a channel of some riders comes, nought among it and at least one apart. */
export function extent(
  evaluation: Evaluation | null,
  riders: readonly Rider[],
  channel: number,
): [number, number] {
  let [low, high] = [0, 1];
  for (const { id } of riders) {
    const poses = evaluation?.riders.get(id)?.poses;
    if (poses === undefined) continue;
    for (let at = channel; at < poses.length; at += POSE.size) {
      low = Math.min(low, poses[at]);
      high = Math.max(high, poses[at]);
    }
  }
  return [low, high];
}

/**
 * A line of one channel of samples, at most about two samples a pixel.
 *
 * @param size numbers a sample has; 1 where there is one channel alone
 */
export function channelLine(
  evaluation: Pick<Evaluation, 'first' | 'step'>,
  poses: Float64Array,
  channel: number,
  x: (frame: number) => number,
  y: (value: number) => number,
  pixels: number,
  size: number = POSE.size,
): [number, number][] {
  const samples = poses.length / size;
  const stride = Math.max(1, Math.floor(samples / (2 * Math.max(1, pixels))));
  const line: [number, number][] = [];
  for (let i = 0; i < samples; i += stride) {
    line.push([x(evaluation.first + i * evaluation.step), y(poses[i * size + channel])]);
  }
  const end = samples - 1;
  if (end % stride !== 0)
    line.push([x(evaluation.first + end * evaluation.step), y(poses[end * size + channel])]);
  return line;
}

/** A frame as the axis has it. */
export function frameLabel(frame: number, axis: DiagramShown['axis'], shot: Shot): string {
  if (axis === 'frames') return String(frame);
  const { fps, range } = shot;
  const seconds = (frame - range.first) / fps;
  if (axis === 'seconds') return `${Number(seconds.toFixed(3))} s`;
  const rate = Math.round(fps);
  const whole = Math.round(Math.abs(frame - range.first));
  const two = (value: number) => String(value).padStart(2, '0');
  const total = Math.floor(whole / rate);
  return `${frame < range.first ? '−' : ''}${two(Math.floor(total / 60))}:${two(total % 60)}:${two(whole % rate)}`;
}

/** Frames for the axis' ticks: round ones, of frames or of seconds. */
export function axisTicks(x: Scale, axis: DiagramShown['axis'], shot: Shot, most: number): number[] {
  if (axis === 'frames') return x.ticks(most).filter(Number.isInteger);
  const { fps, range } = shot;
  const [from, to] = x.domain().map((frame) => (frame - range.first) / fps);
  return scaleLinear([from, to], [0, 1])
    .ticks(most)
    .map((seconds) => range.first + seconds * fps);
}
