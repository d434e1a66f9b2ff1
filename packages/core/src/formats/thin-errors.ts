import type { Node, Scene } from '@gltf-transform/core';
import { mat4, quat, vec3 } from 'gl-matrix';
import type { Quat, Vec3 } from '../geometry/math/vec.js';
import { lowerBound } from '../geometry/math/search.js';
import type { AnimationChannel } from './compose-shot.js';
import { reachesOf } from './thin-world.js';
import { newMat4 } from '../geometry/math/new-matrix.js';

/** Result of thinning. */
export interface ThinningFacts {
  readonly keys: number;
  /** As many as there would be without. */
  readonly of: number;
  /** The furthest any place in the world is off, metres, and the most anything is turned, radians, at whole frames. */
  readonly metres: number;
  readonly turn: number;
}

/** Samples of a node, in parts of its reach. */
const PROBES: readonly Vec3[] = [
  [0, 0, 0],
  [1, 0, 0],
  [-1, 0, 0],
  [0, 1, 0],
  [0, -1, 0],
  [0, 0, 1],
  [0, 0, -1],
];

/**
 * Looks how far off all that is seen is at every whole frame, by playing both: what was sampled, and what a reader makes of the keys
 * that stay. It shares nothing with how those were chosen but how far meshes reach.
 *
 * @param kept by channel the samples that stay; null where all do
 */
export function thinningFacts(
  scene: Scene,
  channels: readonly AnimationChannel[],
  kept: readonly (readonly number[] | null)[],
  frames: number,
): ThinningFacts {
  const nodes: Node[] = [];
  for (const top of scene.listChildren()) top.traverse((node) => nodes.push(node));
  const reaches = reachesOf(nodes);
  const index = new Map(nodes.map((node, i) => [node, i]));
  const parents = nodes.map((node) => {
    const parent = node.getParentNode();
    return parent ? (index.get(parent) ?? -1) : -1;
  });
  const moves = nodes.map(() => [] as { channel: AnimationChannel; kept: readonly number[] | null }[]);
  let [keys, of] = [0, 0];
  channels.forEach((channel, i) => {
    const samples = (frames - 1) * channel.steps + 1;
    keys += kept[i]?.length ?? samples;
    of += samples;
    moves[index.get(channel.node) ?? 0].push({ channel, kept: kept[i] });
  });
  // A node that does not move, and hangs on none that does, has no error.
  const stirs = nodes.map(() => false);
  nodes.forEach((_, n) => {
    stirs[n] = moves[n].some((move) => move.kept !== null) || (parents[n] >= 0 && stirs[parents[n]]);
  });
  const [exact, near] = [nodes.map(() => newMat4()), nodes.map(() => newMat4())];
  const [turned, turnedNear] = [nodes.map((): Quat => [0, 0, 0, 1]), nodes.map((): Quat => [0, 0, 0, 1])];
  let [metres, turn] = [0, 0];
  for (let frame = 0; frame < frames; frame++)
    nodes.forEach((node, n) => {
      place(node, moves[n], frame, false, exact, turned, parents[n], n);
      if (!stirs[n]) {
        mat4.copy(near[n], exact[n]);
        quat.copy(turnedNear[n], turned[n]);
        return;
      }
      place(node, moves[n], frame, true, near, turnedNear, parents[n], n);
      const reach = reaches.get(node);
      if (reach === undefined && parents[n] >= 0) return;
      for (const probe of PROBES) {
        vec3.scale(at, probe, reach ?? 0);
        vec3.transformMat4(there, at, exact[n]);
        vec3.transformMat4(at, at, near[n]);
        metres = Math.max(metres, vec3.distance(at, there));
      }
      const dot = Math.abs(quat.dot(turned[n], turnedNear[n]));
      // By the sine near 0, where the cosine has no digits left.
      quat.multiply(between, quat.conjugate(between, turned[n]), turnedNear[n]);
      turn = Math.max(turn, 2 * Math.atan2(Math.hypot(between[0], between[1], between[2]), dot));
    });
  return { keys, of, metres, turn };
}

const at: Vec3 = [0, 0, 0];
const there: Vec3 = [0, 0, 0];
const between: Quat = [0, 0, 0, 1];

function place(
  node: Node,
  moves: readonly { channel: AnimationChannel; kept: readonly number[] | null }[],
  frame: number,
  thinned: boolean,
  worlds: mat4[],
  turns: Quat[],
  parent: number,
  n: number,
): void {
  const local = {
    translation: node.getTranslation() as number[],
    rotation: node.getRotation() as number[],
    scale: node.getScale() as number[],
  };
  for (const { channel, kept } of moves)
    if (channel.path !== 'weights' && !channel.held)
      local[channel.path] = valueAt(channel, thinned ? kept : null, frame * channel.steps);
  mat4.fromRotationTranslationScale(
    worlds[n],
    local.rotation as Quat,
    local.translation as Vec3,
    local.scale as Vec3,
  );
  quat.copy(turns[n], local.rotation as Quat);
  if (parent < 0) return;
  mat4.multiply(worlds[n], worlds[parent], worlds[n]);
  quat.multiply(turns[n], turns[parent], turns[n]);
}

/** A channel at one of its samples, original or interpolated between the kept keys. */
function valueAt(
  { values, path }: AnimationChannel,
  kept: readonly number[] | null,
  sample: number,
): number[] {
  const width = path === 'rotation' ? 4 : 3;
  const own = (i: number) => [...values.subarray(width * i, width * (i + 1))];
  if (kept === null) return own(sample);
  const next = lowerBound(kept, sample);
  if (kept[next] === sample || next === 0) return own(kept[next]);
  const [from, to] = [own(kept[next - 1]), own(kept[next])];
  const t = (sample - kept[next - 1]) / (kept[next] - kept[next - 1]);
  if (width === 4) return quat.slerp([0, 0, 0, 1], from as Quat, to as Quat, t) as Quat;
  return from.map((value, k) => value + t * (to[k] - value));
}
