import type { Rider } from '../document/shot-rider.js';
import type { EvaluatedShot } from '../evaluate/evaluate-shot.js';
import {
  LOCAL,
  initialPose,
  restSpace,
  toModelSpace,
  type MovedParts,
  type NodeHierarchy,
} from '../hierarchy/index.js';
import { POSE } from '../pose/pose.js';
import { Solid, type ModelMesh, type PartMesh, type TurnedBox } from '../solid/index.js';

/** What a rider is made of at one frame. */
export interface BodyNow {
  /** The box around all of it as its model stands; what moves of it may reach out of it by {@link RiderBody.play}. */
  readonly whole: TurnedBox;
  /** By part its box, and the matrix from its own space into the world: sixteen numbers, column by column. */
  readonly boxes: readonly TurnedBox[];
  readonly matrices: readonly Float64Array[];
}

const solids = new WeakMap<PartMesh, Solid>();

/** The solid of a part, its tree built once whoever wears it. */
function solidOf(part: PartMesh): Solid {
  const known = solids.get(part) ?? new Solid(part);
  solids.set(part, known);
  return known;
}

/** So many frames are kept: those that are looked at one after the other. */
const KEPT = 4;

/** A rider as solid parts, wherever it is and however its parts are moved. */
export class RiderBody {
  readonly solids: readonly Solid[];
  /** No part comes further from the rider’s origin, metres. */
  readonly reach: number;
  /** So far what moves of it may reach out of its box as it stands, metres. */
  readonly play: number;
  /** The least of the box’s three sizes, metres. */
  readonly thickness: number;
  private readonly moved: MovedParts;
  private readonly jointed: NodeHierarchy;
  private readonly nodes: readonly number[];
  private readonly locals: Float64Array;
  private readonly space: Float64Array;
  private readonly values: Float64Array;
  private readonly low: readonly number[];
  private readonly high: readonly number[];
  private readonly kept = new Map<number, BodyNow>();
  private readonly pose = new Float64Array(POSE.size);

  constructor(
    private readonly evaluated: EvaluatedShot,
    private readonly rider: Rider,
    private readonly index: number,
    hierarchy: NodeHierarchy,
    mesh: ModelMesh,
  ) {
    this.solids = mesh.map(solidOf);
    this.moved = evaluated.parts(rider);
    const { jointed } = this.moved;
    this.jointed = jointed?.hierarchy ?? hierarchy;
    this.nodes = mesh.map(({ node }) => jointed?.at[node] ?? node);
    this.locals = initialPose(this.jointed).locals;
    this.values = new Float64Array(this.moved.size);
    this.space = restSpace(this.jointed);
    const scale = rider.rest.scale.map(Math.abs);
    const { low, high } = boxOfParts(this.solids, this.nodes, this.space);
    this.low = low;
    this.high = high;
    const sizes = [0, 1, 2].map((k) => (high[k] - low[k]) * scale[k]);
    this.thickness = Math.min(...sizes);
    const most = Math.max(...scale);
    const standing = most * Math.hypot(...[0, 1, 2].map((k) => Math.max(-low[k], high[k])));
    const loose = most * (chainReach(this.solids, this.nodes, this.jointed) + slides(rider));
    // Wheels, steering and a body that leans stay about where they are; what walks, opens or flaps may go anywhere its joints let it.
    const stays =
      rider.gait === null && rider.cycles.length === 0 && rider.ball === null && !isCued(evaluated, rider);
    this.play = this.moved.size === 0 ? 0 : stays ? 0.1 * Math.max(...sizes) : Infinity;
    this.reach = this.play === Infinity ? loose : standing + this.play;
  }

  /** The middle of its model’s box at a frame is here or there: a box around all of it. */
  whole(frame: number): TurnedBox {
    this.evaluated.poses[this.index](frame, this.pose, 0);
    return boxUnder(rootMatrix(this.pose, this.rider), this.low, this.high);
  }

  at(frame: number): BodyNow {
    const known = this.kept.get(frame);
    if (known) return known;
    this.evaluated.poses[this.index](frame, this.pose, 0);
    const root = rootMatrix(this.pose, this.rider);
    if (this.moved.size > 0) {
      this.moved.pose(frame, this.values, 0);
      for (const { at, index } of this.moved.nodes)
        for (let k = 0; k < LOCAL.size; k++) this.locals[index * LOCAL.size + k] = this.values[at + k];
      toModelSpace(this.jointed, this.locals, this.space);
    }
    const matrices = this.nodes.map((node) => multiplied(root, this.space, 16 * node));
    const now: BodyNow = {
      whole: boxUnder(root, this.low, this.high),
      boxes: matrices.map((matrix, i) => boxUnder(matrix, this.solids[i].low, this.solids[i].high)),
      matrices,
    };
    if (this.kept.size >= KEPT) this.kept.delete(this.kept.keys().next().value as number);
    this.kept.set(frame, now);
    return now;
  }

  /** The outermost places of the model as it stands, in its own space: real corners of it, x, y, z in turn. */
  outermost(): Float64Array {
    if (this.corners) return this.corners;
    const rest = restSpace(this.jointed);
    const best = new Map<number, { far: number; place: number[] }>();
    this.solids.forEach(({ mesh: { positions: p } }, i) => {
      const m = rest.subarray(16 * this.nodes[i], 16 * this.nodes[i] + 16);
      for (let v = 0; v + 2 < p.length; v += 3) {
        const place = [0, 1, 2].map(
          (k) => m[k] * p[v] + m[4 + k] * p[v + 1] + m[8 + k] * p[v + 2] + m[12 + k],
        );
        WAYS.forEach((way, w) => {
          const far = way[0] * place[0] + way[1] * place[1] + way[2] * place[2];
          if (far > (best.get(w)?.far ?? -Infinity)) best.set(w, { far, place });
        });
      }
    });
    this.corners = Float64Array.from([...best.values()].flatMap(({ place }) => place));
    return this.corners;
  }

  private corners: Float64Array | null = null;
}

/** Towards the faces, edges and corners of a cube. */
const WAYS = [-1, 0, 1]
  .flatMap((x) => [-1, 0, 1].flatMap((y) => [-1, 0, 1].map((z) => [x, y, z])))
  .filter((way) => way.some((value) => value !== 0));

function isCued({ shot }: EvaluatedShot, { id }: Rider): boolean {
  return shot.cues.some(({ off, does }) => !off && does.rider === id && does.node !== null);
}

/** How far a rider’s cycles slide parts, and its cues, metres of the model. */
function slides({ cycles }: Rider): number {
  return cycles.reduce(
    (sum, { kind, amplitude, rest }) => sum + (kind === 'slide' ? Math.abs(amplitude) + Math.abs(rest) : 0),
    0,
  );
}

/** However its nodes are turned, no part comes further from the model’s origin, metres of the model. */
function chainReach(
  all: readonly Solid[],
  nodes: readonly number[],
  { nodes: hierarchy }: NodeHierarchy,
): number {
  return Math.max(
    0,
    ...all.map(({ low, high }, i) => {
      let reach = Math.hypot(...[0, 1, 2].map((k) => Math.max(-low[k], high[k])));
      for (let node = nodes[i]; node >= 0; node = hierarchy[node].parent) {
        const { scale, translation } = hierarchy[node];
        reach = reach * Math.max(...scale.map(Math.abs)) + Math.hypot(...translation);
      }
      return reach;
    }),
  );
}

function boxOfParts(all: readonly Solid[], nodes: readonly number[], space: Float64Array) {
  const low = [Infinity, Infinity, Infinity];
  const high = [-Infinity, -Infinity, -Infinity];
  all.forEach((solid, i) => {
    const { numbers: n } = boxUnder(space.subarray(16 * nodes[i], 16 * nodes[i] + 16), solid.low, solid.high);
    for (let k = 0; k < 3; k++) {
      const half = Math.abs(n[3 + k]) + Math.abs(n[6 + k]) + Math.abs(n[9 + k]);
      low[k] = Math.min(low[k], n[k] - half);
      high[k] = Math.max(high[k], n[k] + half);
    }
  });
  return { low, high };
}

/** From a rider’s model into the world. */
export function rootMatrix(
  pose: Float64Array,
  { rest: { scale } }: Pick<Rider, 'rest'>,
  at = 0,
): Float64Array {
  const [x, y, z, w] = [pose[at + 3], pose[at + 4], pose[at + 5], pose[at + 6]];
  const [a, b, c] = scale;
  return Float64Array.of(
    (1 - 2 * (y * y + z * z)) * a,
    2 * (x * y + z * w) * a,
    2 * (x * z - y * w) * a,
    0,
    2 * (x * y - z * w) * b,
    (1 - 2 * (x * x + z * z)) * b,
    2 * (y * z + x * w) * b,
    0,
    2 * (x * z + y * w) * c,
    2 * (y * z - x * w) * c,
    (1 - 2 * (x * x + y * y)) * c,
    0,
    pose[at],
    pose[at + 1],
    pose[at + 2],
    1,
  );
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

/** A box along the axes of a space, in the space that a matrix leads to. */
function boxUnder(m: ArrayLike<number>, low: ArrayLike<number>, high: ArrayLike<number>): TurnedBox {
  const numbers = new Float64Array(12);
  for (let k = 0; k < 3; k++) {
    numbers[k] =
      m[12 + k] +
      (m[k] * (low[0] + high[0]) + m[4 + k] * (low[1] + high[1]) + m[8 + k] * (low[2] + high[2])) / 2;
    for (let axis = 0; axis < 3; axis++)
      numbers[3 + 3 * axis + k] = (m[4 * axis + k] * (high[axis] - low[axis])) / 2;
  }
  return { numbers };
}
