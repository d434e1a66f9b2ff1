import { quat, vec3 } from 'gl-matrix';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { STATE } from './physics.js';
import { rotationVectorBetween } from './turn-between.js';

/** Something that is stepped forward frame by frame, each frame from the one before and from its own inputs. */
export interface Stepped {
  /** Numbers of a frame's state. */
  readonly size: number;
  /** Goes from a frame to the next, by the inputs of both, and writes its state. */
  step(before: Float64Array, after: Float64Array, out: Float64Array, at: number): void;
  /** Begins anew by the inputs of the first frame, and writes its state. */
  begin(inputs: Float64Array, out: Float64Array, at: number): void;
  /** An input rounded: values that differ by a rounding are equal. */
  rounded(value: number): number;
  save(): Uint8Array;
  load(saved: Uint8Array): void;
  close(): void;
}

/** Bytes of what is saved on the way, at the most. */
const MOST_SAVED = 24e6;
/** Frames between two of what is saved, at the least. */
const BETWEEN = 12;

/**
 * Cache of stepped states: any frame is a look-up, in any order. If the inputs of a frame change, earlier frames stay
 * and work resumes from the last saved world.
 */
export class KeptSteps {
  private states: Float64Array;
  private inputs: Float64Array;
  /** Frames whose state is known, the first among them. */
  private known = 0;
  /** Current frame of the world. */
  private at = 0;
  private saved: { readonly frame: number; readonly bytes: Uint8Array }[] = [];
  private between = BETWEEN;

  /**
   * @param width numbers of a frame's inputs
   */
  constructor(
    private readonly stepped: Stepped,
    private readonly width: number,
  ) {
    this.states = new Float64Array(stepped.size * 64);
    this.inputs = new Float64Array(width * 64);
  }

  /** Number of changes: a reader whose number differs has to read again. */
  changes = 0;

  /**
   * Steps to a frame; one frame a step.
   *
   * @param inputs writes a frame's inputs
   */
  *advance(
    frames: number,
    inputs: (frame: number, out: Float64Array, at: number) => void,
  ): Generator<void, void, undefined> {
    const { width, stepped } = this;
    this.make(frames);
    const fresh = new Float64Array(width);
    for (let frame = 0; frame < frames; frame++) {
      inputs(frame, fresh, 0);
      for (let k = 0; k < width; k++) fresh[k] = stepped.rounded(fresh[k]) + 0;
      const kept = this.inputs.subarray(frame * width, (frame + 1) * width);
      if (frame < this.known && same(kept, fresh)) continue;
      if (frame < this.known) this.goBack(frame);
      this.changes++;
      kept.set(fresh);
      if (frame === 0) stepped.begin(kept, this.states, 0);
      else {
        const before = this.inputs.subarray((frame - 1) * width, frame * width);
        stepped.step(before, kept, this.states, frame * stepped.size);
      }
      this.at = frame;
      this.known = frame + 1;
      if (frame % this.between === 0) this.keep(frame);
      yield;
    }
  }

  /** The states, {@link Stepped.size} numbers a frame. */
  read(): Float64Array {
    return this.states;
  }

  close(): void {
    this.stepped.close();
  }

  /** Drops a frame and all after it, and sets the world to the frame before. */
  private goBack(frame: number): void {
    const { width, stepped } = this;
    const wanted = frame - 1;
    this.known = frame;
    while (this.saved.length > 0 && this.saved[this.saved.length - 1].frame > wanted) this.saved.pop();
    const last = this.saved[this.saved.length - 1];
    if (last === undefined || this.at === wanted) return;
    stepped.load(last.bytes);
    for (let i = last.frame + 1; i <= wanted; i++)
      stepped.step(
        this.inputs.subarray((i - 1) * width, i * width),
        this.inputs.subarray(i * width, (i + 1) * width),
        this.states,
        i * stepped.size,
      );
    this.at = wanted;
  }

  private keep(frame: number): void {
    this.saved.push({ frame, bytes: this.stepped.save() });
    const bytes = this.saved.reduce((sum, one) => sum + one.bytes.length, 0);
    if (bytes <= MOST_SAVED || this.saved.length < 4) return;
    // Every second of them is let go; the first is where it begins.
    this.saved = this.saved.filter((_, i) => i % 2 === 0);
    this.between *= 2;
  }

  private make(frames: number): void {
    const grown = (values: Float64Array, size: number) => {
      if (values.length >= size) return values;
      const out = new Float64Array(Math.max(size, 2 * values.length));
      out.set(values);
      return out;
    };
    this.states = grown(this.states, frames * this.stepped.size);
    this.inputs = grown(this.inputs, frames * this.width);
  }
}

function same(a: Float64Array, b: Float64Array): boolean {
  for (let i = 0; i < a.length; i++) if (a[i] !== b[i]) return false;
  return true;
}

/** A place that goes so much further in a frame than its speed explains has jumped, metres. */
const JUMP = 1;

/**
 * A state between two frames: by the places and turns of both and how fast they change there, so that speed has no steps at frames.
 * What jumps stays where it was until the next frame.
 *
 * @param fps frames a second
 */
export function stateBetween(
  states: Float64Array,
  size: number,
  body: number,
  frame: number,
  frames: number,
  fps: number,
  out: Float64Array,
): void {
  const held = Math.min(frames - 1, Math.max(0, frame));
  const before = Math.floor(held);
  const part = held - before;
  const a = before * size + body * STATE.numbers;
  const b = Math.min(frames - 1, before + 1) * size + body * STATE.numbers;
  for (let k = 0; k < STATE.numbers; k++) out[k] = states[a + k];
  // Bodies are moved in single precision.
  const length = Math.hypot(...[3, 4, 5, 6].map((k) => out[k]));
  for (let k = 3; k < 7; k++) out[k] /= length;
  if (part === 0) return;
  const way = Math.hypot(...[0, 1, 2].map((k) => states[b + k] - states[a + k]));
  const speeds = [a, b].map((at) => Math.hypot(...[7, 8, 9].map((k) => states[at + k])));
  if (way > JUMP + (4 * Math.max(...speeds)) / fps) return;
  for (let k = 0; k < 3; k++) {
    const [from, to] = [states[a + 7 + k] / fps, states[b + 7 + k] / fps];
    out[k] = states[a + k] + hermite(from, to, states[b + k] - states[a + k], part);
    out[STATE.velocity + k] = fps * hermiteRate(from, to, states[b + k] - states[a + k], part);
    out[STATE.spin + k] += part * (states[b + STATE.spin + k] - out[STATE.spin + k]);
  }
  turnBetweenFrames(states, a, b, part, fps, out);
}

/** The cubic from 0 to `rise` over 0 … 1 whose slopes at its ends are these. */
function hermite(from: number, to: number, rise: number, t: number): number {
  return t * (from + t * (3 * rise - 2 * from - to + t * (from + to - 2 * rise)));
}

function hermiteRate(from: number, to: number, rise: number, t: number): number {
  return from + t * (2 * (3 * rise - 2 * from - to) + 3 * t * (from + to - 2 * rise));
}

/**
 * Rotates by a cubic of the rotation vector from the first of two, in the world; of all ways round, the one given by
 * its spin.
 */
function turnBetweenFrames(
  states: Float64Array,
  a: number,
  b: number,
  part: number,
  fps: number,
  out: Float64Array,
): void {
  const r = STATE.rotation;
  const from: Quat = [states[a + r], states[a + r + 1], states[a + r + 2], states[a + r + 3]];
  const to: Quat = [states[b + r], states[b + r + 1], states[b + r + 2], states[b + r + 3]];
  const turn = rotationVectorBetween(from, to);
  const spins = [a, b].map((at) => [0, 1, 2].map((k) => states[at + STATE.spin + k] / fps));
  const angle = Math.hypot(...turn);
  if (angle > 1e-9) {
    const along = [0, 1, 2].reduce(
      (sum, k) => sum + ((spins[0][k] + spins[1][k]) / 2) * (turn[k] / angle),
      0,
    );
    const rounds = Math.round((along - angle) / (2 * Math.PI));
    for (let k = 0; k < 3; k++) turn[k] *= 1 + (2 * Math.PI * rounds) / angle;
  }
  const now = [0, 1, 2].map((k) => hermite(spins[0][k], spins[1][k], turn[k], part)) as Vec3;
  const size = Math.hypot(...now);
  if (size < 1e-12) return;
  const by = quat.setAxisAngle([0, 0, 0, 1], vec3.scale([0, 0, 0], now, 1 / size), size);
  quat.normalize(by, quat.multiply(by, by, from));
  for (let k = 0; k < 4; k++) out[r + k] = by[k];
}
