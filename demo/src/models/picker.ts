import type { Node } from '@gltf-transform/core';
import type { Vec3 } from '@fleet-rail/core';
import { ModelBuilder, type Paint } from '../model-builder.js';
import { ball, box, drum, moved } from '../shapes.js';

const SHIRT: Paint = [72, 112, 138];
const TROUSERS: Paint = [84, 76, 64];
const SKIN: Paint = [206, 160, 126];
const STRAW: Paint = [214, 184, 110];
const BOOT: Paint = [58, 48, 42];

/** Metres the walk covers in one cycle of two steps, and how long the cycle takes. */
const STRIDE = 1.4;
const CYCLE_SECONDS = 1.05;
/** The part of the cycle a foot is planted. */
const STANCE = 0.6;
const THIGH = 0.45;
const SHIN = 0.45;
const ANKLE = 0.08;
const HIP = 0.94;
const SAMPLES = 24;

type Bones = Record<string, Node>;

/** The picker: a skinned figure, 1.75 m, facing +z, with the clips "walk" (in place), "idle" and "pick". */
export function makePicker(): ModelBuilder {
  const model = new ModelBuilder();
  const picker = model.node('picker');
  const bones = makeBones(model, picker);
  const names = Object.keys(bones);
  const world = worldPlaces(bones);
  const on = (bone: string, shape: number[], paint: Paint) => {
    return { shape: moved(shape, world[bone]), paint, joint: names.indexOf(bone) };
  };
  const mesh = model.mesh('figure', [
    on('hips', box(0.32, 0.2, 0.2), TROUSERS),
    on('spine', moved(box(0.4, 0.48, 0.24, 0.9), [0, 0.26, 0]), SHIRT),
    on('head', moved(ball(0.12, 10, 7), [0, 0.12, 0.01]), SKIN),
    on('head', moved(drum(0.24, 0.03, 12), [0, 0.2, 0]), STRAW),
    on('head', moved(drum(0.13, 0.1, 12, 0.1), [0, 0.26, 0]), STRAW),
    ...(['left', 'right'] as const).flatMap((side) => [
      on(`arm_${side}`, moved(box(0.1, 0.28, 0.11), [0, -0.14, 0]), SHIRT),
      on(`forearm_${side}`, moved(box(0.08, 0.28, 0.09), [0, -0.14, 0]), SKIN),
      on(`thigh_${side}`, moved(box(0.15, THIGH, 0.17), [0, -THIGH / 2, 0]), TROUSERS),
      on(`shin_${side}`, moved(box(0.12, SHIN, 0.14), [0, -SHIN / 2, 0]), TROUSERS),
      on(`foot_${side}`, moved(box(0.11, 0.1, 0.28), [0, -0.03, 0.06]), BOOT),
    ]),
  ]);
  const skin = model.document.createSkin('picker').setSkeleton(bones.hips);
  names.forEach((name) => skin.addJoint(bones[name]));
  const inverse = names.flatMap((name) => [
    1,
    0,
    0,
    0,
    0,
    1,
    0,
    0,
    0,
    0,
    1,
    0,
    ...world[name].map((v) => -v),
    1,
  ]);
  skin.setInverseBindMatrices(model.accessor('MAT4', Float32Array.from(inverse)));
  model.node('figure', [0, 0, 0], picker, mesh).setSkin(skin);
  addClip(model, bones, 'walk', CYCLE_SECONDS, walkPose);
  addClip(model, bones, 'idle', 3, idlePose);
  addClip(model, bones, 'pick', 4, pickPose);
  return model;
}

function makeBones(model: ModelBuilder, picker: Node): Bones {
  const hips = model.node('hips', [0, HIP, 0], picker);
  const spine = model.node('spine', [0, 0.08, 0], hips);
  const bones: Bones = { hips, spine, head: model.node('head', [0, 0.52, 0], spine) };
  for (const [side, sign] of [
    ['left', 1],
    ['right', -1],
  ] as const) {
    bones[`arm_${side}`] = model.node(`arm_${side}`, [sign * 0.24, 0.46, 0], spine);
    bones[`forearm_${side}`] = model.node(`forearm_${side}`, [0, -0.28, 0], bones[`arm_${side}`]);
    bones[`thigh_${side}`] = model.node(`thigh_${side}`, [sign * 0.1, 0, 0], hips);
    bones[`shin_${side}`] = model.node(`shin_${side}`, [0, -THIGH, 0], bones[`thigh_${side}`]);
    bones[`foot_${side}`] = model.node(`foot_${side}`, [0, -SHIN, 0], bones[`shin_${side}`]);
  }
  return bones;
}

function worldPlaces(bones: Bones): Record<string, Vec3> {
  return Object.fromEntries(
    Object.entries(bones).map(([name, node]) => [name, node.getWorldTranslation() as Vec3]),
  );
}

/** Turns about x by bone, and the hips' height. */
interface Pose {
  turns: Record<string, number>;
  hipHeight: number;
}

/** A walk in place: the planted foot goes back evenly by stride × stance, as the ground would under it. */
function walkPose(phase: number): Pose {
  const hipHeight = 0.885 + 0.012 * Math.cos(4 * Math.PI * (phase - 0.3));
  const turns: Record<string, number> = { spine: 0.05, head: -0.03 };
  for (const [side, shift] of [
    ['left', 0],
    ['right', 0.5],
  ] as const) {
    const foot = footPlace((phase + shift) % 1);
    const { thigh, shin } = reach(foot[0], hipHeight - ANKLE - foot[1]);
    turns[`thigh_${side}`] = thigh;
    turns[`shin_${side}`] = shin;
    turns[`foot_${side}`] = -thigh - shin;
    const swing = Math.cos(2 * Math.PI * (phase + shift));
    turns[`arm_${side}`] = 0.4 * swing;
    turns[`forearm_${side}`] = -0.35 - 0.15 * swing;
  }
  return { turns, hipHeight };
}

/** Forward and up of the foot, from under the hip. */
function footPlace(phase: number): [number, number] {
  const reachAhead = (STRIDE * STANCE) / 2;
  if (phase < STANCE) return [reachAhead - STRIDE * phase, 0];
  const swing = (phase - STANCE) / (1 - STANCE);
  const ease = swing * swing * (3 - 2 * swing);
  return [-reachAhead + 2 * reachAhead * ease, 0.13 * Math.sin(Math.PI * swing)];
}

/** Two-bone reach in the walking plane: turns of thigh and shin about x, knee forward. */
function reach(ahead: number, down: number): { thigh: number; shin: number } {
  const distance = Math.min(Math.hypot(ahead, down), THIGH + SHIN - 1e-6);
  const knee = Math.acos((THIGH ** 2 + SHIN ** 2 - distance ** 2) / (2 * THIGH * SHIN));
  const atHip = Math.acos((THIGH ** 2 + distance ** 2 - SHIN ** 2) / (2 * THIGH * distance));
  // Turning about +x takes down to back, so forward is negative.
  return { thigh: -Math.atan2(ahead, down) - atHip, shin: Math.PI - knee };
}

function idlePose(phase: number): Pose {
  const breath = Math.sin(2 * Math.PI * phase);
  const turns: Record<string, number> = { spine: 0.03 + 0.015 * breath, head: 0.02 * breath };
  for (const side of ['left', 'right']) {
    const { thigh, shin } = reach(0.02, 0.92 - ANKLE);
    turns[`thigh_${side}`] = thigh;
    turns[`shin_${side}`] = shin;
    turns[`foot_${side}`] = -thigh - shin;
    turns[`arm_${side}`] = 0.05;
    turns[`forearm_${side}`] = -0.2 + 0.02 * breath;
  }
  return { turns, hipHeight: 0.92 };
}

/** Reaches up for an apple with one hand and then the other, and lays each in the basket. */
function pickPose(phase: number): Pose {
  const { turns } = idlePose(phase);
  for (const [side, shift] of [
    ['left', 0],
    ['right', 0.5],
  ] as const) {
    const reach = Math.sin(Math.PI * ((phase + shift) % 1)) ** 4;
    turns[`arm_${side}`] = -0.3 - 2.2 * reach;
    turns[`forearm_${side}`] = -1.1 + 0.8 * reach;
  }
  turns.spine = 0.06 + 0.06 * Math.cos(4 * Math.PI * phase);
  turns.head = -0.2 - 0.15 * Math.cos(4 * Math.PI * phase);
  return { turns, hipHeight: 0.92 };
}

function addClip(
  model: ModelBuilder,
  bones: Bones,
  name: string,
  seconds: number,
  pose: (phase: number) => Pose,
): void {
  const { document } = model;
  const clip = document.createAnimation(name);
  const steps = Array.from({ length: SAMPLES + 1 }, (_, i) => i / SAMPLES);
  const times = model.accessor(
    'SCALAR',
    Float32Array.from(steps, (step) => step * seconds),
  );
  const poses = steps.map((step) => pose(step % 1));
  const add = (node: Node, path: 'rotation' | 'translation', values: number[]) => {
    const output = model.accessor(path === 'rotation' ? 'VEC4' : 'VEC3', Float32Array.from(values));
    const sampler = document
      .createAnimationSampler()
      .setInput(times)
      .setOutput(output)
      .setInterpolation('LINEAR');
    clip.addSampler(sampler);
    clip.addChannel(
      document.createAnimationChannel().setTargetNode(node).setTargetPath(path).setSampler(sampler),
    );
  };
  for (const bone of Object.keys(poses[0].turns)) {
    add(
      bones[bone],
      'rotation',
      poses.flatMap(({ turns }) => [Math.sin(turns[bone] / 2), 0, 0, Math.cos(turns[bone] / 2)]),
    );
  }
  add(
    bones.hips,
    'translation',
    poses.flatMap(({ hipHeight }) => [0, hipHeight, 0]),
  );
}
