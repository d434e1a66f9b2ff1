import { Amount, OneOf, Nested, NestedList, Text, TextOrNull, rule, orNull } from './constraints.js';
import { LIMITS } from './limits.js';

/** Everything the checks can find. */
export const FINDING_KINDS = [
  'missing-model',
  'no-curve',
  'loose-end',
  'cue-never',
  'past-end',
  'not-over',
  'never-moves',
  'kink',
  'rough',
  'jolt',
  'grip',
  'flip',
  'tail-first',
  'under-ground',
  'off-ground',
  'through-set',
  'overlap',
  'level-jump',
  'feet-slide',
  'feet-under',
  'steps-quick',
  'out-of-reach',
  'wheels-still',
  'wheel-slide',
  'fast-wheel',
  'fast-cycle',
  'radius-off',
  'seam',
  'doubled-frame',
  'near',
  'camera-under-ground',
  'out-of-frame',
  'hidden',
] as const;
export type FindingKind = (typeof FINDING_KINDS)[number];

/** Limits from which on a shot's behaviour is reported; each is about where an eye notices it. */
export class CheckLimits {
  /** A flatter corner is taken for a bend that was drawn by hand. */
  @Amount('degrees', 0, 180) corner = 5;
  /** A smaller swing to and fro is the life of a machine. */
  @Amount('degrees', 0, 180) swing = 2;
  /** Swings slower than this read as steering. */
  @Amount('times a second', 0.1, 100) swings = 2;
  /** More than any brake can do to a vehicle. */
  @Amount('g', 0, 1e4) jolt = 2;
  /** And what would take a walker off its feet. */
  @Amount('g', 0, 1e4) joltOnFoot = 1;
  /** Tyres on dry tarmac hold about so much sideways. */
  @Amount('g', 0, 1e4) grip = 0.9;
  /** No body turns this far between two pictures; one that does has jumped. */
  @Amount('degrees a frame', 0, 180) flip = 60;
  /** Shorter than this it is a rock back, or a shunt. */
  @Amount('seconds', 0, 1e4) tailFirst = 0.5;
  /** Slower than this a vehicle is backing. */
  @Amount('m/s', 0, 1e4) backing = 3;
  /** Deeper than a tyre gives. */
  @Amount('metres', 0, 1e4) under = 0.02;
  /** Higher than a shadow still hides. */
  @Amount('metres', 0, 1e4) over = 0.05;
  /** Less than this is a touch. */
  @Amount('metres', 0, 1e4) overlap = 0.02;
  /** A foot that slides less is not seen to. */
  @Amount('metres', 0, 1e4) feetSlide = 0.005;
  /** Nor one that sinks less. */
  @Amount('metres', 0, 1e4) feetUnder = 0.003;
  /** A tyre creeps that much in a bend without being seen to. */
  @Amount('m/s', 0, 1e4) wheelSlide = 0.05;
  /** From half a turn a frame on a wheel seems to go backward. */
  @Amount('turns a frame', 0, 1e4) wheelTurns = 0.5;
  /** A radius that is off by more shows as a slide. */
  @Amount('of the radius', 0, 10) radius = 0.02;
  /** Nearer than this a thing fills the picture, or the lens is in it. */
  @Amount('metres', 0, 1e4) near = 1;
  /** A post that passes is no harm. */
  @Amount('seconds', 0, 1e4) hidden = 0.25;
}

/** A dismissed finding, until it gets worse. */
export class Dismissal {
  @OneOf(...FINDING_KINDS) kind!: FindingKind;
  /** Rider; null for any. */
  @TextOrNull() rider: string | null = null;
  @TextOrNull() other: string | null = null;
  @TextOrNull() part: string | null = null;
  /** Why. */
  @Text() reason!: string;
  /** How bad it was then, in the finding’s own unit; null lets it be however bad it gets. */
  @rule('a number, or null', (v) => v === null || Number.isFinite(v), orNull({ type: 'number' }))
  figure: number | null = null;
}

/** Limits and dismissals of a shot's checks. */
export class Checks {
  @Nested(() => CheckLimits) limits: CheckLimits = new CheckLimits();
  @NestedList(() => Dismissal, LIMITS.waivers) dismissed: Dismissal[] = [];
}
