import { Document, type Buffer, type Node } from '@gltf-transform/core';
import { quat } from 'gl-matrix';
import type { Quat, Vec3 } from '../math/vec.js';
import { FormatError } from './format-error.js';

/** A joint as the file has it: where it is in what it hangs on, and which numbers of a frame turn and move it. */
interface BvhJoint {
  readonly name: string;
  readonly parent: number;
  readonly offset: Vec3;
  readonly channels: readonly Channel[];
}
type Channel = 'Xposition' | 'Yposition' | 'Zposition' | 'Xrotation' | 'Yrotation' | 'Zrotation';

const CHANNELS = /^[XYZ](position|rotation)$/;
/** A figure taller than this is not in metres, but in centimetres. */
const TALLEST = 10;
const LIMITS = { joints: 500, frames: 100_000 };
/** How thick a bone is drawn, as a part of its length. */
const THICK = 0.12;

/**
 * A figure of bones with one clip, from a BVH file (Biovision hierarchy): joints with offsets and Euler turns in the order
 * its channels are listed. It wears plain bones, so that something is seen.
 *
 * @throws FormatError with the line that is not as expected
 */
export function readBvh(text: string, file: string): Document {
  const words = new Words(text, file);
  words.expect('HIERARCHY');
  words.expect('ROOT');
  const joints: BvhJoint[] = [];
  readJoint(words, joints, -1);
  words.expect('MOTION');
  words.expect('Frames:');
  const frames = words.number('how many frames there are');
  if (!Number.isInteger(frames) || frames < 1 || frames > LIMITS.frames)
    words.fail(`${frames} frames`, `a whole number from 1 to ${LIMITS.frames}`);
  words.expect('Frame');
  words.expect('Time:');
  const step = words.number('seconds a frame');
  if (!(step > 0)) words.fail(`${step} s a frame`, 'a time above 0');
  const width = joints.reduce((sum, { channels }) => sum + channels.length, 0);
  const motion = Array.from({ length: frames }, (_, i) =>
    Array.from({ length: width }, (_, k) => words.number(`value ${k + 1} of frame ${i + 1}`)),
  );
  return figureOf(joints, motion, step, file);
}

/** Words of a text with the line they stand on. */
class Words {
  private readonly words: { word: string; line: number }[];
  private next = 0;

  constructor(
    text: string,
    private readonly file: string,
  ) {
    this.words = text
      .split(/\r?\n/)
      .flatMap((line, i) => (line.match(/\S+/g) ?? []).map((word) => ({ word, line: i + 1 })));
  }

  take(expected: string): string {
    const found = this.words[this.next++];
    if (found === undefined) return this.fail('the end of the file', expected);
    return found.word;
  }

  peek(): string | undefined {
    return this.words[this.next]?.word;
  }

  expect(word: string): void {
    const found = this.take(word);
    if (found.toUpperCase() !== word.toUpperCase()) this.fail(`"${found.slice(0, 40)}"`, word);
  }

  number(what: string): number {
    const found = this.take(what);
    const value = Number(found);
    if (!Number.isFinite(value)) this.fail(`"${found.slice(0, 40)}"`, `a number: ${what}`);
    return value;
  }

  fail(found: string, expected: string): never {
    const line = this.words[Math.min(this.next, this.words.length) - 1]?.line ?? 1;
    throw new FormatError(this.file, `is a broken BVH: line ${line}: found ${found}; expected ${expected}.`);
  }
}

function readJoint(words: Words, joints: BvhJoint[], parent: number): void {
  const name = words.take('the name of a joint');
  words.expect('{');
  words.expect('OFFSET');
  const offset = [0, 0, 0].map(() => words.number('an offset')) as Vec3;
  words.expect('CHANNELS');
  const count = words.number('how many channels');
  const channels = Array.from({ length: Math.min(6, Math.max(0, count)) }, () => {
    const channel = words.take('a channel');
    if (!CHANNELS.test(channel)) words.fail(`"${channel}"`, 'Xposition … Zrotation');
    return channel as Channel;
  });
  if (joints.length >= LIMITS.joints) words.fail(`joint ${joints.length + 1}`, `at most ${LIMITS.joints}`);
  const own = joints.length;
  joints.push({ name, parent, offset, channels });
  for (;;) {
    const word = words.take('JOINT, End or }');
    if (word === '}') return;
    if (word.toUpperCase() === 'JOINT') readJoint(words, joints, own);
    else if (word.toUpperCase() === 'END') {
      words.expect('Site');
      words.expect('{');
      words.expect('OFFSET');
      const end = [0, 0, 0].map(() => words.number('an offset')) as Vec3;
      words.expect('}');
      joints.push({ name: `${name} end`, parent: own, offset: end, channels: [] });
    } else words.fail(`"${word.slice(0, 40)}"`, 'JOINT, End or }');
  }
}

function figureOf(
  joints: readonly BvhJoint[],
  motion: readonly number[][],
  step: number,
  file: string,
): Document {
  const document = new Document();
  const buffer = document.createBuffer();
  const scene = document.createScene('scene');
  const scale = heightOf(joints, motion) > TALLEST ? 0.01 : 1;
  const nodes = joints.map(({ name, offset }) =>
    document.createNode(name).setTranslation(offset.map((value) => value * scale) as Vec3),
  );
  nodes.forEach((node, i) => {
    const { parent } = joints[i];
    if (parent < 0) scene.addChild(node);
    else {
      nodes[parent].addChild(node);
      addBone(document, buffer, nodes[parent], node.getTranslation());
    }
  });
  const clip = document.createAnimation(file.replace(/^.*[\\/]/, '').replace(/\.bvh$/i, ''));
  const accessor = (type: 'SCALAR' | 'VEC3' | 'VEC4', values: number[]) =>
    document.createAccessor().setType(type).setArray(Float32Array.from(values)).setBuffer(buffer);
  const times = accessor(
    'SCALAR',
    motion.map((_, i) => i * step),
  );
  const add = (node: Node, path: 'translation' | 'rotation', values: number[]) => {
    const output = accessor(path === 'rotation' ? 'VEC4' : 'VEC3', values);
    const sampler = document.createAnimationSampler().setInput(times).setOutput(output);
    clip.addSampler(sampler);
    clip.addChannel(
      document.createAnimationChannel().setTargetNode(node).setTargetPath(path).setSampler(sampler),
    );
  };
  let at = 0;
  joints.forEach(({ channels, offset }, i) => {
    const from = at;
    at += channels.length;
    if (channels.some((channel) => channel.endsWith('rotation')))
      add(
        nodes[i],
        'rotation',
        motion.flatMap((frame) => turnOf(channels, frame, from)),
      );
    if (channels.some((channel) => channel.endsWith('position')))
      add(
        nodes[i],
        'translation',
        motion.flatMap((frame) =>
          [0, 1, 2].map((k) => {
            const channel = channels.indexOf(`${'XYZ'[k]}position` as Channel);
            return scale * (channel < 0 ? offset[k] : frame[from + channel]);
          }),
        ),
      );
  });
  return document;
}

/** How tall the figure is in its first frame, in the file's own unit: as long as its offsets reach. */
function heightOf(joints: readonly BvhJoint[], motion: readonly number[][]): number {
  const heights: number[] = [];
  joints.forEach(({ parent, offset }, i) => {
    heights[i] = (parent < 0 ? 0 : heights[parent]) + offset[1];
  });
  return Math.max(Math.max(...heights) - Math.min(...heights), Math.abs(motion[0]?.[1] ?? 0));
}

/** The turn of Euler angles in the order they are listed: the first outermost. */
function turnOf(channels: readonly Channel[], frame: readonly number[], at: number): Quat {
  const turn: Quat = [0, 0, 0, 1];
  channels.forEach((channel, k) => {
    if (!channel.endsWith('rotation')) return;
    const axis = [0, 0, 0].map((_, n) => (channel[0] === 'XYZ'[n] ? 1 : 0)) as Vec3;
    quat.multiply(turn, turn, quat.setAxisAngle([0, 0, 0, 1], axis, (frame[at + k] * Math.PI) / 180));
  });
  return turn;
}

/** A four-sided bone from a joint to one that hangs on it. */
function addBone(document: Document, buffer: Buffer, node: Node, to: Vec3): void {
  const length = Math.hypot(...to);
  if (length < 1e-6) return;
  const way = to.map((value) => value / length);
  const other = Math.abs(way[1]) < 0.9 ? [0, 1, 0] : [1, 0, 0];
  const cross = (a: number[], b: number[]) =>
    [0, 1, 2].map((k) => a[(k + 1) % 3] * b[(k + 2) % 3] - a[(k + 2) % 3] * b[(k + 1) % 3]);
  const u = cross(way, other);
  const size = Math.hypot(...u);
  const v = cross(way, u);
  const rim = [u, v, u.map((x) => -x), v.map((x) => -x)].map((side) =>
    side.map((value, k) => to[k] * 0.2 + (value / size) * length * THICK),
  );
  const corners = rim.flatMap((corner, i) => {
    const next = rim[(i + 1) % 4];
    return [[0, 0, 0], corner, next, to, next, corner];
  });
  const position = document
    .createAccessor()
    .setType('VEC3')
    .setArray(Float32Array.from(corners.flat()))
    .setBuffer(buffer);
  const primitive = document.createPrimitive().setAttribute('POSITION', position);
  const mesh = document.createMesh(`${node.getName()} bone`).addPrimitive(primitive);
  node.addChild(document.createNode(`${node.getName()} bone`).setMesh(mesh));
}
