import { POSE, type Shot } from '@fleet-rail/core';
import { scaleLinear, type ScaleLinear } from 'd3-scale';
import type { Evaluation } from '../../evaluation/evaluation';

export const MARGIN = { left: 52, right: 14, top: 20, bottom: 18 };

/** Scales from frames to across, and from metres and speed to up, in pixels of the diagram. */
export interface DiagramScales {
  readonly x: ScaleLinear<number, number>;
  readonly distance: ScaleLinear<number, number>;
  readonly speed: ScaleLinear<number, number>;
}

/** Fits the scales to what the riders do. */
export function diagramScales(
  shot: Shot,
  evaluation: Evaluation | null,
  width: number,
  height: number,
  stripHeight: number,
): DiagramScales {
  const { first, last } = shot.range;
  let [low, high, slowest, fastest] = [0, 1, 0, 1];
  for (const { poses } of evaluation?.riders.values() ?? []) {
    for (let at = 0; at < poses.length; at += POSE.size) {
      low = Math.min(low, poses[at + POSE.distance]);
      high = Math.max(high, poses[at + POSE.distance]);
      slowest = Math.min(slowest, poses[at + POSE.speed]);
      fastest = Math.max(fastest, poses[at + POSE.speed]);
    }
  }
  const right = Math.max(MARGIN.left + 10, width - MARGIN.right);
  const foot = height - MARGIN.bottom;
  const top = foot - stripHeight;
  return {
    x: scaleLinear([first, Math.max(last, first + 1)], [MARGIN.left, right]),
    distance: scaleLinear([low, high + (high - low) * 0.04], [top - 8, MARGIN.top]),
    speed: scaleLinear([slowest, fastest * 1.15], [foot, top + 6]),
  };
}

/** A rider's line of one channel, at most about two samples a pixel. */
export function channelLine(
  evaluation: Evaluation,
  poses: Float64Array,
  channel: number,
  x: (frame: number) => number,
  y: (value: number) => number,
  pixels: number,
): [number, number][] {
  const samples = poses.length / POSE.size;
  const stride = Math.max(1, Math.floor(samples / (2 * Math.max(1, pixels))));
  const line: [number, number][] = [];
  for (let i = 0; i < samples; i += stride) {
    line.push([x(evaluation.first + i * evaluation.step), y(poses[i * POSE.size + channel])]);
  }
  const end = samples - 1;
  if (end % stride !== 0)
    line.push([x(evaluation.first + end * evaluation.step), y(poses[end * POSE.size + channel])]);
  return line;
}
