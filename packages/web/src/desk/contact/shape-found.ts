import type { Forces, Rider } from '@fleet-rail/core';
import type { KeptModel } from '../../api/models';

/** As wide as high as long within this it is a ball. */
const ROUND = 0.1;

/** The shape and size of a rider's body, from its model. */
export function shapeFound(model: KeptModel | null, { rest }: Rider): Partial<Forces> {
  if (model === null) return {};
  const { low, high } = model.facts;
  const sizes = high.map((value, k) => Math.abs((value - low[k]) * rest.scale[k]));
  const [least, most] = [Math.min(...sizes), Math.max(...sizes)];
  const size = Number(Math.max(0.001, sizes[1] / 2).toFixed(4));
  return { shape: most - least <= ROUND * most ? 'ball' : 'hull', size };
}
