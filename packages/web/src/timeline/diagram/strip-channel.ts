import { GRAVITY, gripOf, POSE, type Drive } from '@fleet-rail/core';
import type { EvaluatedRider, Evaluation } from '../../workers/evaluation/evaluation';
import type { DiagramShown } from '../../state/desk-store';

/** Values of the strip under the diagram: one a sample, with minimum and maximum. */
export interface StripLine {
  readonly values: Float64Array;
  readonly low: number;
  readonly high: number;
}

type Sampled = Pick<EvaluatedRider, 'poses' | 'sideways'>;

const cached = new WeakMap<Float64Array, { readonly from: readonly unknown[]; readonly line: StripLine }>();

/** The strip's line of a rider, made once for as long as nothing it follows from changes. */
export function stripLine(
  what: DiagramShown['strip'],
  rider: Sampled,
  evaluation: Pick<Evaluation, 'step'>,
  fps: number,
): StripLine {
  const { poses } = rider;
  const from = [what, evaluation.step, fps];
  const before = cached.get(poses);
  if (before?.from.every((part, i) => part === from[i])) return before.line;
  const values = stripValues(what, rider, evaluation, fps);
  const line = {
    values,
    low: values.reduce((a, b) => Math.min(a, b), Infinity),
    high: values.reduce((a, b) => Math.max(a, b), -Infinity),
  };
  cached.set(poses, { from, line });
  return line;
}

function stripValues(
  what: DiagramShown['strip'],
  { poses, sideways }: Sampled,
  evaluation: Pick<Evaluation, 'step'>,
  fps: number,
): Float64Array {
  const count = poses.length / POSE.size;
  const speed = (i: number) => poses[i * POSE.size + POSE.speed];
  if (what === 'speed') return Float64Array.from({ length: count }, (_, i) => speed(i));
  if (what === 'sideways') return sideways.map((push) => push / GRAVITY);
  return Float64Array.from({ length: count }, (_, i) => {
    const [a, b] = [Math.max(0, i - 1), Math.min(count - 1, i + 1)];
    return b > a ? ((speed(b) - speed(a)) / ((b - a) * evaluation.step)) * fps : 0;
  });
}

export const STRIP_UNITS: Readonly<Record<DiagramShown['strip'], string>> = {
  speed: 'm/s',
  acceleration: 'm/s²',
  sideways: 'g',
};

/** Limits of a drive for such a value. */
export function stripLimits(what: DiagramShown['strip'], drive: Drive): number[] {
  if (what === 'speed') return [drive.top];
  if (what === 'acceleration') return [drive.accelerate, -drive.brake];
  return [gripOf(drive), -gripOf(drive)];
}
