import { quat, vec3 } from 'gl-matrix';
import { defaultsOf } from '../../document/defaults.js';
import type { Axis } from '../../document/shot-facing.js';
import { Cycle } from '../../document/shot-rider.js';
import { nodeNamed, type NodeHierarchy } from '../hierarchy/node-hierarchy.js';
import { restSpace, rotationOf } from '../hierarchy/model-space.js';
import type { Vec3 } from '../../geometry/math/vec.js';
import { axisVector } from '../../motion/pose/axes.js';
import { newQuat } from '../../geometry/math/new-matrix.js';

/** A model's own axes. */
interface Axes {
  readonly forward: Axis;
  readonly up: Axis;
}

/** Parts that move by themselves, the likeliest first: about which of the model's axes, how far (degrees), and in what waveform. */
const KINDS: readonly {
  readonly name: RegExp;
  readonly about: keyof Axes;
  readonly amplitude: number;
  readonly shape: Cycle['shape'];
}[] = [
  { name: /wing/i, about: 'forward', amplitude: 30, shape: 'sine' },
  { name: /propell/i, about: 'forward', amplitude: 360, shape: 'steady' },
  { name: /rotor|blade/i, about: 'up', amplitude: 360, shape: 'steady' },
  { name: /\bfin\b|tail/i, about: 'up', amplitude: 15, shape: 'sine' },
];

/** The other part of a pair by its name; null if there is none. */
export function pairedName(name: string, others: readonly string[]): string | null {
  const swapped = name
    .replace(/left|right/i, (side) => (/left/i.test(side) ? 'right' : 'left'))
    .replace(
      /([._-])([lr])$/i,
      (_, dot: string, side: string) => dot + (side.toLowerCase() === 'l' ? 'r' : 'l'),
    );
  if (swapped === name) return null;
  return others.find((other) => other.toLowerCase() === swapped.toLowerCase()) ?? null;
}

/**
 * First cycle of a rider: of the part that most likely moves, with the other one of its pair, about its natural axis:
 * wings beat up and down.
 *
 * @param names of the model's parts, at least one
 * @param hierarchy null where it has not been read: its parts are then taken to stand in the model's own axes
 * @param axes that the model was found to face by
 */
export function proposeCycle(names: readonly string[], hierarchy: NodeHierarchy | null, axes: Axes): Cycle {
  const kind = KINDS.find(({ name }) => names.some((one) => name.test(one)));
  const likely = names.filter((one) => kind?.name.test(one));
  const node = likely.find((one) => pairedName(one, names) !== null) ?? likely[0] ?? names[0];
  const { about, amplitude, shape } = kind ?? KINDS[0];
  return {
    ...defaultsOf(Cycle),
    node,
    mirror: kind ? pairedName(node, names) : null,
    axis: axisIn(hierarchy, node, axisVector(axes[about])),
    amplitude,
    shape,
    rate: 1,
    whole: true,
  };
}

/** Of a node's own axes the one nearest to a direction in the model. */
function axisIn(hierarchy: NodeHierarchy | null, name: string, direction: Vec3): Axis {
  const own = vec3.copy([0, 0, 0], direction);
  const node = hierarchy ? nodeNamed(hierarchy, name) : -1;
  if (hierarchy && node >= 0) {
    vec3.transformQuat(own, own, quat.invert(newQuat(), rotationOf(restSpace(hierarchy), node)));
  }
  const sizes = [...own].map(Math.abs);
  const k = sizes.indexOf(Math.max(...sizes));
  return `${own[k] < 0 ? '-' : '+'}${'xyz'[k]}` as Axis;
}
