import type { Gauge } from '../evaluate/gauges.js';
import { LOCAL } from '../../character/hierarchy/node-hierarchy.js';
import type { MovedParts } from '../../character/hierarchy/node-driver.js';

/** Moved parts of a model, by sample. */
export interface SampledParts extends Omit<MovedParts, 'pose' | 'jointed'> {
  /** `size` numbers a sample, laid out by `nodes`. */
  readonly values: Float64Array;
}

/**
 * Parts at `count` frames that are `step` apart; turns by the shorter way from each to the next.
 *
 * @param before the samples that these go on from
 * @param into   where they are put, in place of an array of their own
 */
export function sampleParts(
  { pose, nodes, joints, size }: Omit<MovedParts, 'jointed'>,
  first: number,
  count: number,
  step: number,
  before?: Float64Array,
  into?: Float64Array,
): SampledParts {
  const values = into ?? new Float64Array(size === 0 ? 0 : count * size);
  for (let i = 0; size > 0 && i < count; i++) {
    pose(first + i * step, values, i * size);
    const [list, from] = i > 0 ? [values, (i - 1) * size] : [before, (before?.length ?? 0) - size];
    if (!list) continue;
    for (const { at } of nodes)
      takeShortWay(values, i * size + at + LOCAL.rotation, list, from + at + LOCAL.rotation);
  }
  return { nodes, joints, size, values };
}

/** Turns the sign of a quaternion where the one before it is nearer to its negative: both are one rotation. */
export function takeShortWay(values: Float64Array, at: number, before: Float64Array, from: number): void {
  const dot =
    values[at] * before[from] +
    values[at + 1] * before[from + 1] +
    values[at + 2] * before[from + 2] +
    values[at + 3] * before[from + 3];
  if (dot >= 0) return;
  for (let k = at; k < at + 4; k++) values[k] = -values[k];
}

/** A gauge by sample. */
export interface SampledGauge extends Omit<Gauge, 'value'> {
  readonly values: Float64Array;
}

export function sampleGauge(
  { kind, part, value }: Gauge,
  first: number,
  count: number,
  step: number,
): SampledGauge {
  return { kind, part, values: Float64Array.from({ length: count }, (_, i) => value(first + i * step)) };
}
