import { quat, vec3 } from 'gl-matrix';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { nodeOriginOf, restSpace, rotationOf, type ModelSpace } from './model-space.js';
import type { Clip, ClipChannel, NodeHierarchy } from './node-hierarchy.js';

/**
 * A node hierarchy with another's clips beside its own: nodes of one name are rotated in model space as the other's
 * are, from each one's rest pose. The other's root motion is copied, scaled by the length of its bones. Morph targets
 * and scales are not taken, nor are nodes it does not have. If both have a clip of one name it keeps its own.
 */
export function withClipsOf(own: NodeHierarchy, other: NodeHierarchy): NodeHierarchy {
  const cached = borrowed.get(own)?.get(other);
  if (cached) return cached;
  const index = new Map(own.nodes.map(({ name }, i) => [plain(name), i]));
  const spaces = { own: restSpace(own), other: restSpace(other) };
  const size = boneSize(own, spaces.own) / (boneSize(other, spaces.other) || 1);
  const names = new Set(own.clips.map(({ name }) => name));
  const clips = other.clips
    .filter(({ name }) => !names.has(name))
    .map((clip): Clip => {
      const moved = clip.channels.filter(({ path }) => path === 'translation').map(({ node }) => node);
      const carrier = moved.length === 0 ? -1 : Math.min(...moved);
      return {
        ...clip,
        channels: clip.channels.flatMap((channel): ClipChannel[] => {
          const node = index.get(plain(other.nodes[channel.node].name));
          if (node === undefined || channel.interpolation === 'CUBICSPLINE') return [];
          const values =
            channel.path === 'rotation'
              ? turned(channel, rotationOf(spaces.other, channel.node), own, node, other, spaces.own)
              : channel.path === 'translation' && channel.node === carrier
                ? carried(channel, own.nodes[node].translation, size)
                : null;
          return values ? [{ ...channel, node, values }] : [];
        }),
      };
    });
  const built: NodeHierarchy = { ...own, clips: [...own.clips, ...clips] };
  const all = borrowed.get(own) ?? new WeakMap<NodeHierarchy, NodeHierarchy>();
  all.set(other, built);
  borrowed.set(own, all);
  return built;
}

const borrowed = new WeakMap<NodeHierarchy, WeakMap<NodeHierarchy, NodeHierarchy>>();

/** A name without the name space before it, in small letters and without what parts words. */
const plain = (name: string) =>
  name
    .replace(/^.*[:|]/, '')
    .replace(/[\s_.-]+/g, '')
    .toLowerCase();

function turned(
  { node: source, values }: ClipChannel,
  stands: Quat,
  own: NodeHierarchy,
  node: number,
  other: NodeHierarchy,
  ownSpace: ModelSpace,
): Float64Array {
  const out = new Float64Array(values.length);
  const back = quat.conjugate([0, 0, 0, 1], other.nodes[source].rotation as quat);
  const mine = rotationOf(ownSpace, node);
  const unstand = quat.conjugate([0, 0, 0, 1], stands);
  const unmine = quat.conjugate([0, 0, 0, 1], mine);
  for (let i = 0; i < values.length; i += 4) {
    const turn: Quat = [values[i], values[i + 1], values[i + 2], values[i + 3]];
    // From its rest rotation, in its own axes; then in the model's; then in those of the other node.
    quat.multiply(turn, back, turn);
    quat.multiply(turn, stands, quat.multiply([0, 0, 0, 1], turn, unstand));
    quat.multiply(turn, unmine, quat.multiply([0, 0, 0, 1], turn, mine));
    quat.multiply(turn, own.nodes[node].rotation as quat, turn);
    out.set(quat.normalize(turn, turn), i);
  }
  return out;
}

function carried({ values }: ClipChannel, rest: Vec3, size: number): Float64Array {
  return Float64Array.from(values, (value, i) => rest[i % 3] + size * (value - values[i % 3]));
}

/** How long all bones are together. */
function boneSize({ nodes }: NodeHierarchy, space: ModelSpace): number {
  return nodes.reduce(
    (sum, { parent }, i) =>
      parent < 0 ? sum : sum + vec3.distance(nodeOriginOf(space, i), nodeOriginOf(space, parent)),
    0,
  );
}
