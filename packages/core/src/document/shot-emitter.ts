import {
  Amount,
  Color,
  ColorOrNull,
  IdOrNull,
  OneOf,
  NestedList,
  TextOrNull,
  Whole,
  rule,
} from './constraints.js';
import { LIMITS } from './limits.js';

/** Several particles together: at a frame, or when a cue acts. */
export class Burst {
  @Amount('frame') frame = 1;
  /** The cue it waits for instead. */
  @IdOrNull('cue') cue: string | null = null;
  @Whole(1, LIMITS.particles) count = 20;
}

const isSizes = (v: unknown) =>
  Array.isArray(v) && v.length === 2 && v.every((n) => typeof n === 'number' && n >= 0 && n <= 1e4);

/** Particles of a rider: dust, sparks, leaves, water. */
export class Emitter {
  @Amount('a second or a metre', 0, 1e5) rate = 40;
  @OneOf('time', 'distance') by: 'time' | 'distance' = 'time';
  @Amount('seconds', 1e-3, 1e4) life = 1;
  /** At birth, out of the emitter. */
  @Amount('metres a second', 0, 1e4) speed = 1;
  /** From the middle of the cone to its edge. */
  @Amount('degrees', 0, 180) spread = 20;
  /** Times that of the earth. */
  @Amount('g', -100, 100) gravity = 0;
  /** Part of its speed that is lost in a second, as a rate. */
  @Amount('a second', 0, 1e3) drag = 0;
  /** How much of the emitter's own speed it takes along. */
  @Amount('part of the speed', -10, 10) inherit = 0;
  /** At birth and at the end. */
  @rule('two numbers of metres from 0 to 10000', isSizes, {
    type: 'array',
    items: { type: 'number', minimum: 0, maximum: 1e4 },
    minItems: 2,
    maxItems: 2,
  })
  size: [number, number] = [0.2, 0];
  @Color() color = '#b9a27a';
  /** Colour at the end of life; null keeps the first. */
  @ColorOrNull() fade: string | null = null;
  @OneOf('points', 'quads') look: 'points' | 'quads' = 'quads';
  /** Model drawn instead of points or quads. */
  @IdOrNull('model') model: string | null = null;
  @Whole(0, 2 ** 31 - 1) seed = 1;
  /** Birth place: the rider's origin, a part of its model, or the contacts of its wheels in turn. */
  @OneOf('origin', 'part', 'wheels') from: 'origin' | 'part' | 'wheels' = 'origin';
  @TextOrNull() node: string | null = null;
  @OneOf('always', 'moving', 'sliding') when: 'always' | 'moving' | 'sliding' = 'always';
  @NestedList(() => Burst, LIMITS.bursts) bursts: Burst[] = [];
}
