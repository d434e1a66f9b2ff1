import { POSE, type Rider } from '@fleet-rail/core';
import type { EvaluatedPath, EvaluatedRider } from '../../workers/evaluation/evaluation';

/** Colours of a path by what a rider does on it. */
export interface Heat {
  /** By place of the ribbon from 0 to 1; −1 where the rider does not pass. */
  readonly values: Float32Array;
  /** Values of 0 and 1: m/s, or degrees to either side. */
  readonly low: number;
  readonly high: number;
}

/** How fast a rider is, or how far it leans, along its path: the most of all its passes. */
export function heatOf(path: EvaluatedPath, rider: EvaluatedRider, of: 'speed' | 'bank'): Heat {
  const count = path.frames.length / 12;
  const channel = of === 'speed' ? POSE.speed : POSE.bank;
  const most = new Float32Array(count).fill(-1);
  const { poses } = rider;
  const sampleAt = (distance: number) => {
    const on = path.closed ? ((distance % path.length) + path.length) % path.length : distance;
    return Math.min(count - 1, Math.max(0, (on / path.length) * (count - 1)));
  };
  for (let at = 0; at < poses.length; at += POSE.size) {
    const here = sampleAt(poses[at + POSE.distance]);
    const value = Math.abs(poses[at + channel]);
    const before = at === 0 ? here : sampleAt(poses[at - POSE.size + POSE.distance]);
    // From one frame to the next every place between is passed, unless the seam lies there.
    const jump = Math.abs(here - before) > count / 2;
    const [from, to] = jump ? [here, here] : [Math.min(before, here), Math.max(before, here)];
    for (let i = Math.floor(from); i <= Math.ceil(to); i++) most[i] = Math.max(most[i], value);
  }
  const passed = most.filter((value) => value >= 0);
  const high = Math.max(1e-6, ...passed);
  return { values: most.map((value) => (value < 0 ? -1 : value / high)), low: 0, high };
}

/** Meaning of the colours in words. */
export function heatText(rider: Rider, heat: Heat, of: 'speed' | 'bank'): string {
  if (of === 'bank' && heat.high < 0.05) return `${rider.badge}: level all the way`;
  return of === 'speed'
    ? `${rider.badge}: 0 to ${heat.high.toFixed(1)} m/s`
    : `${rider.badge}: level to ${heat.high.toFixed(1)}° of bank`;
}
