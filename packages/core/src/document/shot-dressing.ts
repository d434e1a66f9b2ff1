import {
  Amount,
  Color,
  Flag,
  Id,
  IdOrNull,
  OneOf,
  Nested,
  NestedList,
  Name,
  Whole,
  rule,
  orNull,
  numbers,
} from './constraints.js';
import { LIMITS } from './limits.js';

/** Beside the path, and above it. */
export class DressingOffset {
  /** To the left. */
  @Amount('metres', -1e5, 1e5) side = 0;
  @Amount('metres', -1e5, 1e5) rise = 0;
}

/** Another model that takes the place of every so-many-th piece. */
export class OtherPiece {
  @Id() model!: string;
  @Whole(1, 10_000) every = 2;
}

const isProfile = (v: unknown): boolean =>
  Array.isArray(v) &&
  v.length <= LIMITS.profilePoints &&
  v.every(
    (point) =>
      Array.isArray(point) &&
      point.length === 2 &&
      point.every((n) => typeof n === 'number' && Math.abs(n) <= 1e4),
  );

/** Something that is built along a path: ties, posts, a rail, a road. */
export class Dressing {
  @Id() id!: string;
  @Name() name!: string;
  @Id() path!: string;
  /** A model again and again, or a cross-section that is swept along. */
  @OneOf('pieces', 'profile') kind: 'pieces' | 'profile' = 'pieces';
  @IdOrNull('model') model: string | null = null;
  /** Models that take the place of some of the pieces; of several that would, the last one does. */
  @NestedList(() => OtherPiece, LIMITS.otherPieces) others: OtherPiece[] = [];
  /** From the middle of one piece to that of the next. */
  @Amount('metres', 1e-3, 1e5) every = 0.6;
  /** Whether the step is adjusted so that both ends have a piece. */
  @Flag() fit = false;
  /** Whether a piece is bent along the curve, or stays straight. */
  @Flag() bend = false;
  /** Of a profile: to the left and up, metres. */
  @rule(`a list of at most ${LIMITS.profilePoints} points [x, y], metres`, isProfile, {
    type: 'array',
    items: numbers(2),
    maxItems: LIMITS.profilePoints,
  })
  profile: [number, number][] = [];
  /** Whether the last point of the profile meets the first. */
  @Flag() ring = false;
  /** Whether the ends of a ring are closed. */
  @Flag() caps = true;
  @Amount('metres') from = 0;
  /** The end of the path where it is null. */
  @rule(
    'a number of metres, or null',
    (v) => v === null || (Number.isFinite(v) && Math.abs(v as number) <= 1e9),
    orNull({ type: 'number', minimum: -1e9, maximum: 1e9 }),
  )
  to: number | null = null;
  @Nested(() => DressingOffset) offset: DressingOffset = new DressingOffset();
  /** Whether it is repeated on the other side, mirrored. */
  @Flag() both = false;
  /** Orientation of a piece: along the path with its roll; upright at the path's height; or upright on the ground. */
  @OneOf('path', 'level', 'ground') stand: 'path' | 'level' | 'ground' = 'path';
  /** The most that a piece strays from its place, along the path and across it. */
  @Amount('metres', 0, 1e4) jitter = 0;
  /** The most that it is turned about its own height. */
  @Amount('degrees', 0, 180) jitterTurn = 0;
  /** The most that it is larger or smaller. */
  @Amount('part of its size', 0, 0.9) jitterSize = 0;
  @Whole(0, 2 ** 31 - 1) seed = 1;
  /** Of a profile. */
  @Color() color = '#8c8274';
  /** Whether riders drive on it: of a profile. */
  @Flag() ground = false;
}
