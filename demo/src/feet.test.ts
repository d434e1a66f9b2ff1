import { mat4, vec3 } from 'gl-matrix';
import type { Document, Node } from '@gltf-transform/core';
import {
  checkShot,
  evaluateShot,
  newShot,
  POSE,
  type EvaluatedShot,
  type Quat,
  type SceneAssets,
  type Vec3,
  newMat4,
} from '@fleet-rail/core';
import { assetsOf, readModel, type ModelFacts } from '@fleet-rail/core/formats';
import { makePicker } from './models/picker.js';

/** Feet of a walker as they are seen: its meshes, posed by the files that are handed over. */

let document: Document;
let facts: ModelFacts;
let assets: SceneAssets;

beforeAll(async () => {
  ({ document, facts } = await readModel(await makePicker().glb(), 'picker.glb'));
  assets = await assetsOf(newShot({ name: 't', models: [model] }), new Map([['m', document]]));
});

const model = { id: 'm', name: 'Picker', source: { file: 'picker.glb' } };
const range = { first: 1, last: 300 };
type Key = { frame: number; value: number };

function walking(keys: Key[], gait: object = {}, attachment: object = {}): EvaluatedShot {
  const walk = facts.gaits.find(({ clip }) => clip === 'walk');
  const shot = newShot({
    name: 't',
    range,
    models: [model],
    paths: [
      {
        id: 'p',
        name: 'P',
        basis: 'through',
        points: [0, 4, 9, 15].map((z, i) => ({ position: [i % 2, 0, z] as Vec3 })),
      },
    ],
    riders: [
      {
        id: 'r',
        name: 'Picker',
        kind: 'character',
        model: 'm',
        gait: {
          clip: 'walk',
          idle: 'idle',
          stride: walk?.stride,
          feet: walk?.feet.map(({ node, stances }) => ({ node, stances: [...stances] })),
          ...gait,
        },
        attachment: { path: 'p', pace: { keys }, ...attachment },
      },
    ],
  });
  return evaluateShot(shot, assets);
}

/** The vertices that follow a foot the most, in the world, as a reader of the file would skin them. */
function footVertices(evaluated: EvaluatedShot, foot: string, frame: number): Vec3[] {
  const [rider] = evaluated.shot.riders;
  const parts = evaluated.parts(rider);
  const values = new Float64Array(parts.size);
  parts.pose(frame, values, 0);
  const posed = new Map(
    parts.nodes.map(({ name, at }) => [name, [...values.subarray(at, at + 10)]] as const),
  );
  const pose = new Float64Array(POSE.size);
  evaluated.poses[0](frame, pose, 0);
  const matrices = new Map<Node, mat4>();
  const matrixOf = (node: Node): mat4 => {
    const known = matrices.get(node);
    if (known) return known;
    const own = posed.get(node.getName());
    const [t, r, s] = own
      ? [own.slice(0, 3), own.slice(3, 7), own.slice(7, 10)]
      : [node.getTranslation(), node.getRotation(), node.getScale()];
    const local = mat4.fromRotationTranslationScale(newMat4(), r as Quat, t as Vec3, s as Vec3);
    const parent = node.getParentNode();
    const above = parent
      ? matrixOf(parent)
      : mat4.fromRotationTranslation(
          newMat4(),
          [...pose.subarray(3, 7)] as Quat,
          [...pose.subarray(0, 3)] as Vec3,
        );
    const matrix = mat4.multiply(newMat4(), above, local);
    matrices.set(node, matrix);
    return matrix;
  };
  return verticesOf(foot).map((influences) => {
    const out: Vec3 = [0, 0, 0];
    for (const { joint, bound, weight } of influences)
      vec3.scaleAndAdd(out, out, vec3.transformMat4([0, 0, 0], bound, matrixOf(joint)), weight);
    return out;
  });
}

interface Influence {
  readonly joint: Node;
  /** The vertex in the joint's own space. */
  readonly bound: Vec3;
  readonly weight: number;
}

const known = new Map<string, Influence[][]>();

/** By vertex that follows a foot the most what it follows. */
function verticesOf(foot: string): Influence[][] {
  const before = known.get(foot);
  if (before) return before;
  const found: Influence[][] = [];
  known.set(foot, found);
  for (const node of document.getRoot().listNodes()) {
    const skin = node.getSkin();
    if (!skin) continue;
    const joints = skin.listJoints();
    const own = new Set(joints.flatMap((joint, i) => (isUnder(joint, foot) ? [i] : [])));
    const binds = skin.getInverseBindMatrices()!;
    for (const primitive of node.getMesh()?.listPrimitives() ?? []) {
      const [at, of, by] = ['POSITION', 'JOINTS_0', 'WEIGHTS_0'].map((name) => primitive.getAttribute(name)!);
      for (let v = 0; v < at.getCount(); v++) {
        const [place, which, weights] = [at, of, by].map((attribute) =>
          attribute.getElement(v, [] as number[]),
        );
        if (!own.has(which[weights.indexOf(Math.max(...weights))])) continue;
        const influences = which.flatMap((joint, k): Influence[] => {
          if (weights[k] === 0) return [];
          const bind = binds.getElement(joint, [] as number[]) as unknown as mat4;
          const bound = vec3.transformMat4([0, 0, 0], place as Vec3, bind) as Vec3;
          return [{ joint: joints[joint], bound, weight: weights[k] }];
        });
        found.push(influences);
      }
    }
  }
  return found;
}

const isUnder = (node: Node, name: string): boolean =>
  node.getName() === name || (node.getParentNode() !== null && isUnder(node.getParentNode()!, name));

const FEET = () => facts.gaits.find(({ clip }) => clip === 'walk')!.feet.map(({ node }) => node);
const lowest = (places: readonly Vec3[]) => Math.min(...places.map(([, y]) => y));

const lows = new Map<string, number>();

/** How low a clip ever has a foot's vertices, over the floor that it walks on. */
function clipLow(clip: string, foot: string): number {
  const key = `${clip} ${foot}`;
  const before = lows.get(key);
  if (before !== undefined) return before;
  // Standing still with the clip for its standing, far from any step.
  const still = walking([{ frame: 1, value: 2 }], { idle: clip, blend: 0, plant: false });
  let low = Infinity;
  for (let frame = 100; frame < 200; frame += 0.5)
    low = Math.min(low, lowest(footVertices(still, foot, frame)));
  return low;
}

const act = { acts: [{ stop: 0, clip: 'pick', from: 0, to: null, fit: 'stretch' as const }] };
/** Stops at a distance for a number of frames and goes on, at whatever phase its step has then. */
const stopping = (at: number, frames = 100): Key[] => [
  { frame: 1, value: 0 },
  { frame: 1 + (at / 1.1) * 24, value: at },
  { frame: 1 + (at / 1.1) * 24 + frames, value: at },
  { frame: 1 + (at / 1.1) * 24 + frames + 100, value: at + 4.6 },
];
const scenes: [string, () => EvaluatedShot][] = [
  ...[3, 3.3, 3.6].flatMap((at): [string, () => EvaluatedShot][] => [
    [`an act after ${at} m`, () => walking(stopping(at), { ...act, blend: 0.5 })],
    [`standing after ${at} m`, () => walking(stopping(at))],
    [`standing without a clip for it after ${at} m`, () => walking(stopping(at), { idle: null })],
    [`a short stop after ${at} m`, () => walking(stopping(at, 14))],
  ]),
  [
    'the end of its path',
    () =>
      walking([
        { frame: 1, value: 9 },
        { frame: 140, value: 15.34 },
      ]),
  ],
  [
    'half a turn on the spot',
    () =>
      walking(
        stopping(3.2, 140),
        {},
        {
          offsetKeys: [
            { frame: 90, yaw: 0 },
            { frame: 190, yaw: 180 },
          ],
        },
      ),
  ],
  ['beside its path', () => walking(stopping(3.4), act, { offset: { side: 1.2 } })],
];

describe.each(scenes)('%s', (_, make) => {
  it('no foot comes more than 3 mm lower than its clips have it', () => {
    const evaluated = make();
    for (const foot of FEET()) {
      const allowed = Math.min(...['walk', 'idle', 'pick'].map((clip) => clipLow(clip, foot)));
      for (let frame = 55; frame <= 235; frame++)
        expect(lowest(footVertices(evaluated, foot, frame))).toBeGreaterThan(allowed - 0.003);
    }
  });

  it('no foot that is down moves, and none that touches is dragged', () => {
    const evaluated = make();
    const [rider] = evaluated.shot.riders;
    const { walk } = evaluated.contact(rider);
    const ankle = (foot: string, frame: number) => {
      // The mean of its vertices goes with the foot.
      const places = footVertices(evaluated, foot, frame);
      return {
        at: [0, 2].map((k) => places.reduce((sum, p) => sum + p[k], 0) / places.length),
        low: lowest(places),
      };
    };
    FEET().forEach((foot, i) => {
      const floor = Math.min(clipLow('walk', foot), clipLow('idle', foot));
      const locks = walk!.plants().filter((plant) => plant.foot === foot);
      for (let frame = 56; frame <= 235; frame++) {
        const [before, now] = [ankle(foot, frame - 1), ankle(foot, frame)];
        const moved = Math.hypot(now.at[0] - before.at[0], now.at[1] - before.at[1]);
        const down = locks.some(({ from, to }) => frame - 1 >= from && frame <= to);
        if (down) expect(walk!.slide(i, frame)).toBeLessThan(1e-3);
        // Within 4 mm of the floor at both frames it is on it: rolling over its toe and heel, it moves a little.
        const touches = before.low < floor + 0.004 && now.low < floor + 0.004;
        if (touches && !down) expect(moved).toBeLessThan(0.05);
      }
    });
  });

  it('nothing of its walk stands out', () => {
    // Its pace and turns here are as abrupt as keys can be, which Check reports.
    const ofWalk = checkShot(make()).filter(({ kind }) => kind !== 'jolt' && kind !== 'tail-first');
    expect(ofWalk.map(({ message }) => message)).toEqual([]);
  });
});
