import { LOCAL, initialPose, type Clip, type NodeHierarchy } from '../hierarchy/node-hierarchy.js';
import type { Quat } from '../../geometry/math/vec.js';
import { WalkPoses, type WalkTiming } from './walk-poses.js';

const node = (name: string, parent: number) => ({
  name,
  parent,
  translation: [0, 1, 0] as [number, number, number],
  rotation: [0, 0, 0, 1] as Quat,
  scale: [1, 1, 1] as [number, number, number],
  weights: name === 'face' ? [0, 0] : [],
});

/** About X by an angle. */
const about = (angle: number): Quat => [Math.sin(angle / 2), 0, 0, Math.cos(angle / 2)];

const clip = (name: string, swing: number): Clip => ({
  name,
  seconds: 1,
  channels: [
    {
      node: 1,
      path: 'rotation',
      times: [0, 1],
      values: [...about(0), ...about(swing)],
      interpolation: 'LINEAR',
    },
    {
      node: 2,
      path: 'rotation',
      times: [0, 1],
      values: [...about(0), ...about(-swing)],
      interpolation: 'LINEAR',
    },
    { node: 3, path: 'weights', times: [0, 1], values: [0, 0, swing, 1], interpolation: 'LINEAR' },
  ],
});

const figure: NodeHierarchy = {
  nodes: [node('root', -1), node('leg', 0), node('arm', 0), node('face', 0)],
  clips: [clip('walk', 1), clip('idle', 0.4)],
  box: null,
};

/** Walks until frame 20, stops until 40, and blends in between. */
const timing: WalkTiming = {
  first: 1,
  fps: 20,
  phase: (frame) => frame / 32,
  idleSpans: [{ from: 20, to: 40 }],
  idleWeight: (frame) => Math.min(1, Math.max(0, (frame - 20) / 10)),
  restingPhases: [],
};

function posed(only: ReadonlySet<number> | null, frame: number) {
  const [walk, idle] = figure.clips;
  const clips = {
    walk: { clip: walk, carrier: -1, drift: [0, 0, 0] as [number, number, number] },
    stops: [{ act: null, idle, stop: null, start: null }],
  };
  const buffers = { over: initialPose(figure), rest: initialPose(figure) };
  const poses = new WalkPoses(clips, timing, buffers, only);
  const pose = initialPose(figure);
  poses.pose(frame, pose);
  return { pose, nodes: poses.nodes };
}

const turnOf = ({ pose }: ReturnType<typeof posed>, index: number) => {
  const at = index * LOCAL.size + LOCAL.rotation;
  return 2 * Math.atan2(pose.locals[at], pose.locals[at + 3]);
};

it('walks by phase, stands by time, and is between the two as far as it stands', () => {
  expect(turnOf(posed(null, 8), 1)).toBeCloseTo(0.25, 12);
  // Half a second after it stopped.
  expect(turnOf(posed(null, 30), 1)).toBeCloseTo(0.2, 12);
  // Half-way: 25 / 32 of the walk’s swing, and a quarter of a second of the idle clip.
  const between = posed(null, 25);
  expect(turnOf(between, 1)).toBeCloseTo((25 / 32 + 0.1) / 2, 12);
  expect(turnOf(between, 2)).toBeCloseTo(-(25 / 32 + 0.1) / 2, 12);
  expect(between.pose.weights[3][0]).toBeCloseTo((25 / 32 + 0.1) / 2, 12);
});

it('poses some nodes alone as it poses them with all', () => {
  for (const frame of [8, 25, 30]) {
    const [all, leg] = [posed(null, frame), posed(new Set([0, 1]), frame)];
    expect(leg.nodes).toEqual([1]);
    expect(turnOf(leg, 1)).toBe(turnOf(all, 1));
    expect(turnOf(leg, 2)).toBe(0);
    expect([...leg.pose.weights[3]]).toEqual([0, 0]);
  }
});
