import type { RigidBody, Rider } from '@fleet-rail/core';
import type { KeptModel } from '../../api/models';

/** As wide as high as long within this it is a ball. */
const ROUND = 0.1;

/** The shape and size of a rider's body, from its model: what rolls on the length of it, as a barrel, is a cylinder. */
export function shapeFound(model: KeptModel | null, { rest }: Rider): Partial<RigidBody> {
  if (model === null) return {};
  const { low, high } = model.facts;
  const sizes = high.map((value, k) => Math.abs((value - low[k]) * rest.scale[k]));
  const [roll, ...others] = model.facts.rig.wheels;
  const across = (k: number) => Math.abs(high[k] - low[k]);
  if (roll && others.length === 0) {
    const along = 'xyz'.indexOf(roll.axle[1]);
    const widest = Math.max(...[0, 1, 2].filter((k) => k !== along).map(across));
    // All of the model is round about that axle, not a wheel of it.
    if (Math.abs(2 * roll.radius - widest) <= 0.02 * widest) {
      const scale = Math.max(...rest.scale.map(Math.abs));
      return { shape: 'cylinder', axis: roll.axle, size: Number((roll.radius * scale).toFixed(4)) };
    }
  }
  const [least, most] = [Math.min(...sizes), Math.max(...sizes)];
  const size = Number(Math.max(0.001, sizes[1] / 2).toFixed(4));
  return { shape: most - least <= ROUND * most ? 'ball' : 'hull', size };
}
