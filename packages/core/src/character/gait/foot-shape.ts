import { quat, vec3 } from 'gl-matrix';
import type { ModelSpace } from '../hierarchy/model-space.js';
import { hangsOn, type NodeHierarchy } from '../hierarchy/node-hierarchy.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';

/** Points of a foot: those of its node and of nodes below it, which give the shape of its sole. */
export class FootShape {
  readonly nodes: readonly { readonly node: number; readonly hull: ArrayLike<number> }[];
  private readonly offset: Vec3 = [0, 0, 0];

  constructor(
    hierarchy: NodeHierarchy,
    private readonly foot: number,
  ) {
    this.nodes = hierarchy.nodes.flatMap(({ hull }, node) =>
      hull && hull.length > 0 && hangsOn(hierarchy, node, foot) ? [{ node, hull }] : [],
    );
  }

  /**
   * How far its lowest place is above the foot's own origin, metres of the model along its up; below it, negative. Without any
   * places it is the origin.
   *
   * @param space where the nodes are
   * @param turn  a turn of the whole foot about its origin, from how it is there; null for none
   */
  lowest(space: ModelSpace, up: Vec3, turn: Quat | null): number {
    if (this.nodes.length === 0) return 0;
    if (turn === null) return this.lowestUnturned(space, up);
    return this.least(space, turn, (offset) => vec3.dot(offset, up));
  }

  /**
   * Lowest value of a measure at the foot's points, each relative to the foot's own origin, in model space. Without
   * points the origin is measured.
   *
   * @param turn of the whole foot about its origin, from how it is there; null for none
   */
  least(space: ModelSpace, turn: Quat | null, measure: (offset: Vec3) => number): number {
    const { foot, nodes, offset } = this;
    const at = 16 * foot + 12;
    let low = nodes.length === 0 ? measure(vec3.zero(offset) as Vec3) : Infinity;
    for (const { node, hull } of nodes) {
      const m = 16 * node;
      for (let i = 0; i < hull.length; i += 3) {
        for (let k = 0; k < 3; k++)
          offset[k] =
            space[m + k] * hull[i] +
            space[m + 4 + k] * hull[i + 1] +
            space[m + 8 + k] * hull[i + 2] +
            space[m + 12 + k] -
            space[at + k];
        if (turn !== null) vec3.transformQuat(offset, offset, turn);
        low = Math.min(low, measure(offset));
      }
    }
    return low;
  }

  /** How far it reaches around its origin along the ground, metres of the model. */
  reach(space: ModelSpace, up: Vec3): number {
    return -this.least(space, null, (offset) => {
      const along = vec3.dot(offset, up);
      return -Math.sqrt(Math.max(0, vec3.squaredLength(offset) - along * along));
    });
  }

  /** The same for no turn: of each place only how high it is. */
  private lowestUnturned(space: ModelSpace, [a, b, c]: Vec3): number {
    const at = 16 * this.foot + 12;
    const origin = a * space[at] + b * space[at + 1] + c * space[at + 2];
    let low = Infinity;
    for (const { node, hull } of this.nodes) {
      const m = 16 * node;
      const x = a * space[m] + b * space[m + 1] + c * space[m + 2];
      const y = a * space[m + 4] + b * space[m + 5] + c * space[m + 6];
      const z = a * space[m + 8] + b * space[m + 9] + c * space[m + 10];
      const base = a * space[m + 12] + b * space[m + 13] + c * space[m + 14] - origin;
      for (let i = 0; i < hull.length; i += 3)
        low = Math.min(low, x * hull[i] + y * hull[i + 1] + z * hull[i + 2] + base);
    }
    return low;
  }
}

/** The turn that takes one rotation into another. */
export function rotationBetween(from: Quat, to: Quat): Quat {
  return quat.multiply([0, 0, 0, 1], to, quat.conjugate([0, 0, 0, 1], from)) as Quat;
}
