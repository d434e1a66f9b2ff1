import { quat } from 'gl-matrix';
import { findGait } from '../gait/find-gait.js';
import { STRIDE, testWalker } from '../../../test/walker.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { withClipsOf } from './borrowed-clips.js';
import type { NodeHierarchy } from './node-hierarchy.js';

const walker = testWalker();
const bare: NodeHierarchy = { ...walker, clips: [] };

/** The walker twice as large, in another file's names, its bones standing in axes turned by a quarter about Z. */
function foreign(): NodeHierarchy {
  const turn: Quat = [0, 0, Math.SQRT1_2, Math.SQRT1_2];
  const back = quat.conjugate([0, 0, 0, 1], turn) as Quat;
  const times = (...turns: Quat[]) =>
    turns.reduce((all, one) => quat.multiply([0, 0, 0, 1], all, one) as Quat, [0, 0, 0, 1] as Quat);
  const inTurned = ([x, y, z]: Vec3): Vec3 => [2 * y, -2 * x, 2 * z];
  return {
    box: null,
    // The root is turned, and every bone under it is placed and moved in those axes.
    nodes: walker.nodes.map((node, i) => ({
      ...node,
      name: `rig:${node.name.replace('_', ' ').toUpperCase()}`,
      rotation: i === 0 ? turn : node.rotation,
      translation: i === 0 ? node.translation : inTurned(node.translation),
    })),
    clips: walker.clips.map((clip) => ({
      ...clip,
      channels: clip.channels.map((channel) => {
        const values = Array.from(channel.values);
        const out: number[] = [];
        if (channel.path === 'rotation') {
          for (let i = 0; i < values.length; i += 4)
            out.push(...times(back, values.slice(i, i + 4) as Quat, turn));
        } else {
          for (let i = 0; i < values.length; i += 3) out.push(...inTurned(values.slice(i, i + 3) as Vec3));
        }
        return { ...channel, values: out };
      }),
    })),
  };
}

it('another’s walk is walked with its own bones, whatever the other’s size, names and axes', () => {
  const dressed = withClipsOf(bare, foreign());
  expect(dressed.clips.map(({ name }) => name)).toEqual(['walk', 'stand']);
  const found = findGait(dressed, dressed.clips[0], '+z', '+y');
  expect(found.stride).toBeCloseTo(STRIDE, 2);
  expect(found.feet.map(({ node }) => node)).toEqual(['foot_l', 'foot_r']);
  // Asked for again it is the very same.
  expect(withClipsOf(bare, dressed)).toBe(withClipsOf(bare, dressed));
});

it('its own clips stay its own, and what it has no nodes for is left out', () => {
  const other: NodeHierarchy = {
    box: null,
    nodes: [{ ...walker.nodes[0], name: 'tail' }],
    clips: [
      {
        name: 'wag',
        seconds: 1,
        channels: [{ node: 0, path: 'rotation', times: [0], values: [0, 0, 0, 1], interpolation: 'LINEAR' }],
      },
    ],
  };
  expect(withClipsOf(walker, foreign()).clips).toEqual(walker.clips);
  expect(withClipsOf(walker, other).clips[2]).toMatchObject({ name: 'wag', channels: [] });
});
