import { eachAction } from '../document/each-action.js';
import type { Rider } from '../document/shot-rider.js';
import { movesByItself, type EvaluatedShot } from '../shot/evaluate/evaluate-shot.js';
import { LOCAL, initialPose, type NodeHierarchy } from '../character/hierarchy/node-hierarchy.js';
import { restSpace, toModelSpace } from '../character/hierarchy/model-space.js';
import type { MovedParts } from '../character/hierarchy/node-driver.js';
import { POSE } from '../motion/pose/pose.js';
import type { ModelMesh } from '../geometry/solid/model-mesh.js';
import type { TurnedBox } from '../geometry/solid/turned-box.js';
import type { Solid } from './solid.js';
import { boxUnder, shapeOfModel, type ModelShape } from './model-shape.js';

/** Owner of the body: a rider and its poses at every frame. */
export interface Embodied {
  readonly evaluated: EvaluatedShot;
  readonly rider: Rider;
  readonly index: number;
  readonly first: number;
  readonly count: number;
  /** POSE.size numbers a frame. */
  readonly poses: Float64Array;
  /** Index in them of its pose at the i-th frame. */
  at(i: number): number;
}

/** Boxes and matrices of a rider at one frame. */
export interface BodyNow {
  /** By part its box, and the matrix from its own space into the world: sixteen numbers, column by column. */
  readonly boxes: readonly TurnedBox[];
  readonly matrices: readonly Float64Array[];
}

/** A rider’s parts as they move: compiled when a part is first asked for. */
interface Moving {
  readonly parts: MovedParts;
  readonly hierarchy: NodeHierarchy;
  /** By part of the mesh which node of that hierarchy it is. */
  readonly nodes: readonly number[];
  readonly values: Float64Array;
  readonly locals: Float64Array;
  readonly space: Float64Array;
}

/** Number of cached frames, those used last. */
const KEPT = 4;
/** Wheels that steer and a body that leans reach out of a vehicle’s box by this part of its size at most. */
const LEANS = 0.1;

/** A rider as solid parts, at any position and with its parts moved. */
export class RiderBody {
  /** No part comes further from the rider’s origin, metres. */
  readonly reach: number;
  /** Distance that its moving parts may reach out of its rest box, metres. */
  readonly play: number;
  /** The least of the box’s three sizes, metres. */
  readonly thickness: number;
  private readonly shape: ModelShape;
  private readonly kept = new Map<number, BodyNow>();
  private readonly wholes: TurnedBox[] = [];
  private readonly pose = new Float64Array(POSE.size);
  private made: Moving | null = null;

  constructor(
    private readonly look: Embodied,
    private readonly hierarchy: NodeHierarchy,
    private readonly mesh: ModelMesh,
  ) {
    const { rider } = look;
    this.shape = shapeOfModel(mesh, hierarchy);
    const { low, high } = this.shape;
    const scale = rider.rest.scale.map(Math.abs);
    const sizes = [0, 1, 2].map((k) => (high[k] - low[k]) * scale[k]);
    this.thickness = Math.min(...sizes);
    // Wheels, steering and a body that leans stay about where they are; what walks, opens or flaps may go anywhere its joints let it.
    const cued = isCued(look);
    const loose = rider.gait !== null || rider.cycles.length > 0 || rider.ball !== null || cued;
    this.play = loose ? Infinity : movesByItself(rider) ? LEANS * Math.max(...sizes) : 0;
    const standing = Math.hypot(...[0, 1, 2].map((k) => Math.max(-low[k], high[k])));
    this.reach = loose
      ? Math.max(...scale) * (this.shape.reach + slides(look))
      : Math.max(...scale) * standing + this.play;
  }

  get solids(): readonly Solid[] {
    return this.shape.solids;
  }

  /** Hull points of the model in its rest pose, in its own space: real corners, x, y, z in turn. */
  get outermost(): Float64Array {
    return this.shape.outermost;
  }

  /** Box of the whole model in its rest pose at a frame, cached at whole frames; moving parts may reach out by {@link play}. */
  whole(frame: number): TurnedBox {
    const i = frame - this.look.first;
    const known = this.wholes[i];
    if (known) return known;
    const box = boxUnder(this.root(frame), this.shape.low, this.shape.high);
    if (Number.isInteger(i)) this.wholes[i] = box;
    return box;
  }

  at(frame: number): BodyNow {
    const known = this.kept.get(frame);
    if (known) return known;
    const root = this.root(frame);
    const { parts, hierarchy, nodes, values, locals, space } = (this.made ??= this.moving());
    if (parts.size > 0) {
      parts.pose(frame, values, 0);
      for (const { at, index } of parts.nodes)
        for (let k = 0; k < LOCAL.size; k++) locals[index * LOCAL.size + k] = values[at + k];
      toModelSpace(hierarchy, locals, space);
    }
    const matrices = nodes.map((node) => multiplied(root, space, 16 * node));
    const boxes = matrices.map((matrix, i) => boxUnder(matrix, this.solids[i].low, this.solids[i].high));
    if (this.kept.size >= KEPT) this.kept.delete(this.kept.keys().next().value as number);
    const now = { boxes, matrices };
    this.kept.set(frame, now);
    return now;
  }

  private moving(): Moving {
    const parts = this.look.evaluated.parts(this.look.rider);
    const hierarchy = parts.jointed?.hierarchy ?? this.hierarchy;
    return {
      parts,
      hierarchy,
      nodes: this.mesh.map(({ node }) => parts.jointed?.at[node] ?? node),
      values: new Float64Array(parts.size),
      locals: initialPose(hierarchy).locals,
      space: restSpace(hierarchy),
    };
  }

  /** From the model into the world at a frame. */
  private root(frame: number): Float64Array {
    const { first, count, evaluated, index, poses, rider } = this.look;
    const i = frame - first;
    if (Number.isInteger(i) && i >= 0 && i < count) return rootMatrix(poses, rider, this.look.at(i));
    evaluated.poses[index](frame, this.pose, 0);
    return rootMatrix(this.pose, rider, 0);
  }
}

function isCued({ evaluated, rider: { id } }: Embodied): boolean {
  return eachAction(evaluated.shot.cues).some(
    ({ off, action }) => !off && action.rider === id && action.node !== null,
  );
}

/** How far a rider’s cycles and cues slide its parts, metres of the model. */
function slides({ evaluated, rider }: Embodied): number {
  const cycles = rider.cycles.map(({ kind, amplitude, rest }) =>
    kind === 'slide' ? Math.abs(amplitude) + Math.abs(rest) : 0,
  );
  const cues = eachAction(evaluated.shot.cues).map(({ action, keys }) =>
    action.kind === 'move' && action.rider === rider.id
      ? Math.max(0, ...keys.map(({ value }) => Math.abs(value)))
      : 0,
  );
  return [...cycles, ...cues].reduce((sum, far) => sum + far, 0);
}

function rootMatrix(pose: Float64Array, { rest: { scale } }: Pick<Rider, 'rest'>, at: number): Float64Array {
  const [x, y, z, w] = [pose[at + 3], pose[at + 4], pose[at + 5], pose[at + 6]];
  const [a, b, c] = scale;
  const m = new Float64Array(16);
  m[0] = (1 - 2 * (y * y + z * z)) * a;
  m[1] = 2 * (x * y + z * w) * a;
  m[2] = 2 * (x * z - y * w) * a;
  m[4] = 2 * (x * y - z * w) * b;
  m[5] = (1 - 2 * (x * x + z * z)) * b;
  m[6] = 2 * (y * z + x * w) * b;
  m[8] = 2 * (x * z + y * w) * c;
  m[9] = 2 * (y * z - x * w) * c;
  m[10] = (1 - 2 * (x * x + y * y)) * c;
  m[12] = pose[at];
  m[13] = pose[at + 1];
  m[14] = pose[at + 2];
  m[15] = 1;
  return m;
}

function multiplied(m: Float64Array, of: Float64Array, o: number): Float64Array {
  const out = new Float64Array(16);
  for (let column = 0; column < 16; column += 4)
    for (let row = 0; row < 4; row++)
      out[column + row] =
        m[row] * of[o + column] +
        m[4 + row] * of[o + column + 1] +
        m[8 + row] * of[o + column + 2] +
        m[12 + row] * of[o + column + 3];
  return out;
}
