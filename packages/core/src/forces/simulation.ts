import { STATE } from './physics.js';

/** Something that is stepped forward frame by frame, each frame from the one before and from its own inputs. */
export interface Stepped {
  /** Numbers of a frame's state. */
  readonly size: number;
  /** Goes from a frame to the next, by the inputs of both, and writes its state. */
  step(before: Float64Array, after: Float64Array, out: Float64Array, at: number): void;
  /** Begins anew by the inputs of the first frame, and writes its state. */
  begin(inputs: Float64Array, out: Float64Array, at: number): void;
  save(): Uint8Array;
  load(saved: Uint8Array): void;
  close(): void;
}

/** Bytes of what is saved on the way, at the most. */
const MOST_SAVED = 24e6;
/** Frames between two of what is saved, at the least. */
const BETWEEN = 12;

/**
 * What was stepped forward once, kept: any frame is a look-up, whichever was asked for first. Where the inputs of a frame change, all
 * before it stays as it was, and it goes on from what was saved last.
 */
export class KeptSteps {
  private states: Float64Array;
  private inputs: Float64Array;
  /** Frames whose state is known, the first among them. */
  private known = 0;
  /** The frame the world itself stands at. */
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

  /** Counts what was changed of it: whoever read it before has to look again. */
  changes = 0;

  /**
   * Brings it up to so many frames; one frame a step.
   *
   * @param inputs writes a frame's inputs
   */
  *advance(frames: number, inputs: (frame: number, out: Float64Array, at: number) => void): Generator<void> {
    const { width, stepped } = this;
    this.make(frames);
    const fresh = new Float64Array(width);
    for (let frame = 0; frame < frames; frame++) {
      inputs(frame, fresh, 0);
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

  /** Forgets a frame and all after it, and has the world stand at the frame before. */
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

/** A state between two frames: straight on, turns by the shorter way. */
export function stateBetween(
  states: Float64Array,
  size: number,
  body: number,
  frame: number,
  frames: number,
  out: Float64Array,
): void {
  const held = Math.min(frames - 1, Math.max(0, frame));
  const before = Math.floor(held);
  const part = held - before;
  const a = before * size + body * STATE.numbers;
  const b = Math.min(frames - 1, before + 1) * size + body * STATE.numbers;
  for (let k = 0; k < STATE.numbers; k++) out[k] = states[a + k] + part * (states[b + k] - states[a + k]);
  if (part === 0) return;
  const r = STATE.rotation;
  let dot = 0;
  for (let k = 0; k < 4; k++) dot += states[a + r + k] * states[b + r + k];
  const angle = Math.acos(Math.min(1, Math.abs(dot)));
  // Of two that are all but one the straight way is as good, and has no quotient of noughts.
  const sine = Math.sin(angle);
  const [from, to] =
    sine < 1e-6 ? [1 - part, part] : [Math.sin((1 - part) * angle) / sine, Math.sin(part * angle) / sine];
  const sign = dot < 0 ? -1 : 1;
  let length = 0;
  for (let k = 0; k < 4; k++) {
    out[r + k] = from * states[a + r + k] + sign * to * states[b + r + k];
    length += out[r + k] ** 2;
  }
  for (let k = 0; k < 4; k++) out[r + k] /= Math.sqrt(length);
}
