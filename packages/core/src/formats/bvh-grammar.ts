import type { Vec3 } from '../geometry/math/vec.js';
import { FormatError } from './format-error.js';

/** A joint as the file has it: where it is in what it hangs on, and which numbers of a frame turn and move it. */
export interface BvhJoint {
  readonly name: string;
  readonly parent: number;
  readonly offset: Vec3;
  readonly channels: readonly BvhChannel[];
}
export type BvhChannel = 'Xposition' | 'Yposition' | 'Zposition' | 'Xrotation' | 'Yrotation' | 'Zrotation';

/** Contents of a BVH file: its joints, each after its parent, and their numbers frame by frame. */
export interface BvhMotion {
  readonly joints: readonly BvhJoint[];
  /** By frame all channels, in the order of the joints; the file's own unit, and degrees. */
  readonly motion: readonly number[][];
  /** Seconds a frame. */
  readonly step: number;
}

const CHANNELS = /^[XYZ](position|rotation)$/;
const LIMITS = { joints: 500, frames: 100_000, number: 1e9 };

/**
 * Reads the text of a BVH file.
 *
 * @throws FormatError with the line that is not as expected
 */
export function parseBvh(text: string, file: string): BvhMotion {
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
  return { joints, motion, step };
}

/** Words of a text with their line. */
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
    if (!(Math.abs(value) <= LIMITS.number)) this.fail(`"${found.slice(0, 40)}"`, `a number: ${what}`);
    return value;
  }

  fail(found: string, expected: string): never {
    const line = this.words[Math.min(this.next, this.words.length) - 1]?.line ?? 1;
    throw new FormatError(this.file, `is a broken BVH: line ${line}: found ${found}; expected ${expected}.`);
  }
}

function readJoint(words: Words, joints: BvhJoint[], parent: number): void {
  const name = words.take('the name of a joint').slice(0, 200);
  words.expect('{');
  words.expect('OFFSET');
  const offset = [0, 0, 0].map(() => words.number('an offset')) as Vec3;
  words.expect('CHANNELS');
  const count = words.number('how many channels');
  const channels = Array.from({ length: Math.min(6, Math.max(0, count)) }, () => {
    const channel = words.take('a channel');
    if (!CHANNELS.test(channel)) words.fail(`"${channel.slice(0, 40)}"`, 'Xposition … Zrotation');
    return channel as BvhChannel;
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
