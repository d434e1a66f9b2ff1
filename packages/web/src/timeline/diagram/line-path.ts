import { POSE } from '@fleet-rail/core';
import type { ScaleLinear } from 'd3-scale';
import { brokenLine } from './broken-line';
import { channelLine } from './diagram-scales';

type Scale = ScaleLinear<number, number>;

/** So many riders are drawn with two places a pixel; more with less. */
export const FULL_LINES = 12;

const cached = new WeakMap<Float64Array, { readonly key: string; readonly path: string }>();

/**
 * The path of a line of samples, made once for as long as neither they nor the scales change: while one rider of many
 * is dragged, the others' lines stay.
 *
 * @param samples poses, whose distances are drawn; or values, one a sample
 */
export function linePath(
  samples: Float64Array,
  what: 'distances' | 'values',
  from: { readonly first: number; readonly step: number },
  x: Scale,
  y: Scale,
  pixels: number,
): string {
  const key = [from.first, from.step, pixels, x.domain(), x.range(), y.domain(), y.range()].join();
  const before = cached.get(samples);
  if (before?.key === key) return before.path;
  const [channel, size] = what === 'distances' ? [POSE.distance, POSE.size] : [0, 1];
  const path = brokenLine(channelLine(from, samples, channel, x, y, pixels, size));
  cached.set(samples, { key, path });
  return path;
}
