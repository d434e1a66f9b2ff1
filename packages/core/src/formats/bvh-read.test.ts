import { gltfIo, readModel } from './model-read.js';
import { hierarchyOf } from './hierarchy-read.js';
import { sampleClip } from '../character/gait/sample-clip.js';
import { nodeOriginOf, toModelSpace } from '../character/hierarchy/model-space.js';
import { initialPose } from '../character/hierarchy/node-hierarchy.js';

const FILE = `HIERARCHY
ROOT Hips
{
  OFFSET 0 0 0
  CHANNELS 6 Xposition Yposition Zposition Zrotation Xrotation Yrotation
  JOINT LeftFoot
  {
    OFFSET 10 -90 0
    CHANNELS 3 Zrotation Xrotation Yrotation
    End Site
    {
      OFFSET 0 0 20
    }
  }
}
MOTION
Frames: 2
Frame Time: 0.5
0 90 0 0 0 0 0 0 0
0 90 40 90 90 0 0 0 0
`;
const bytes = (text: string) => new TextEncoder().encode(text);

it('joints, turns in the order of their channels, and centimetres made metres', async () => {
  const { document, facts } = await readModel(bytes(FILE), 'walk.bvh');
  expect(facts.clips).toEqual([{ name: 'walk', seconds: 0.5 }]);
  const hierarchy = hierarchyOf(document);
  const foot = hierarchy.nodes.findIndex(({ name }) => name === 'LeftFoot');
  const at = (seconds: number) => {
    const pose = initialPose(hierarchy);
    sampleClip(hierarchy.clips[0], seconds, pose);
    return nodeOriginOf(
      toModelSpace(hierarchy, pose.locals, new Float64Array(16 * hierarchy.nodes.length)),
      foot,
    );
  };
  at(0).forEach((value, k) => expect(value).toBeCloseTo([0.1, 0, 0][k], 6));
  // Z by 90° after X by 90°: (10, −90, 0) → X → (10, 0, −90) → Z → (0, 10, −90), and moved to (0, 90, 40).
  at(0.5).forEach((value, k) => expect(value).toBeCloseTo([0, 1, -0.5][k], 6));
  const again = await readModel(await gltfIo().writeBinary(document), 'walk.glb');
  expect(again.facts.nodes).toEqual(facts.nodes);
});

it('fingers bend, the channels in an order of their own, and a figure of metres stays one', async () => {
  const three = 'CHANNELS 3 Zrotation Xrotation Yrotation';
  const end = (...offset: number[]) => `End Site { OFFSET ${offset.join(' ')} }`;
  const text = `HIERARCHY
ROOT Hips { OFFSET 0 0 0 CHANNELS 6 Yrotation Xrotation Zrotation Zposition Xposition Yposition
  JOINT Head { OFFSET 0 0.75 0 ${three} ${end(0, 0.1, 0)} }
  JOINT LeftHand { OFFSET 0.6 0.4 0 ${three}
    JOINT LeftHandIndex1 { OFFSET 0.1 0 0 ${three}
      JOINT LeftHandIndex2 { OFFSET 0.04 0 0 ${three} ${end(0.03, 0, 0)} } }
    JOINT LeftHandThumb1 { OFFSET 0.03 0 0.04 ${three} ${end(0.03, 0, 0.02)} } }
  JOINT LeftFoot { OFFSET 0.1 -0.85 0 ${three} ${end(0, 0, 0.2)} } }
MOTION
Frames: 2
Frame Time: 0.5
0 0 0 0 0 0.9  0 0 0  0 0 0  0 0 0  0 0 0  0 0 0  0 0 0
90 0 0 2 0 0.9  0 0 0  0 0 0  90 0 0  0 0 0  0 0 0  0 0 0
`;
  const { document } = await readModel(bytes(text.replace(/([{}])/g, '\n$1\n')), 'grasp.bvh');
  const hierarchy = hierarchyOf(document);
  const pose = initialPose(hierarchy);
  sampleClip(hierarchy.clips[0], 0.5, pose);
  const spaces = toModelSpace(hierarchy, pose.locals, new Float64Array(16 * hierarchy.nodes.length));
  const tip = nodeOriginOf(
    spaces,
    hierarchy.nodes.findIndex(({ name }) => name === 'LeftHandIndex2'),
  );
  // The knuckle by 90° about Z: (0.7, 0.44, 0) from the hips, which turn by 90° about Y and are at (0, 0.9, 2).
  tip.forEach((value, k) => expect(value).toBeCloseTo([0, 1.34, 1.3][k], 6));
});

it.each([
  [
    FILE.replace('HIERARCHY', 'HIERARCY'),
    /walk\.bvh: is a broken BVH: line 1: found "HIERARCY"; expected HIERARCHY/,
  ],
  [FILE.replace('OFFSET 10', 'OFFSET ten'), /line 8: found "ten"; expected a number/],
  [
    FILE.replace('Zrotation Xrotation Yrotation\n  JOINT', 'Zrotation Xrotation Wrotation\n  JOINT'),
    /line 5: found "Wrotation"/,
  ],
  [FILE.replace('Frames: 2', 'Frames: 3'), /found the end of the file; expected value 1 of frame 3/],
  ['', /found the end of the file; expected HIERARCHY/],
])('what is broken is told by line', async (text, message) => {
  await expect(readModel(bytes(text), 'walk.bvh')).rejects.toThrow(message);
});
