import {
  Amount,
  Flag,
  Id,
  OneOf,
  Nested,
  NestedList,
  Name,
  TextOrNull,
  Texts,
  Whole,
  rule,
  orNull,
} from './constraints.js';
import { LIMITS } from './limits.js';
import { Cut } from './shot-camera.js';
import { Checks } from './shot-checks.js';
import { Dressing } from './shot-dressing.js';
import { KeptView } from './shot-view.js';
import { ShotPath } from './shot-path.js';
import { Cue } from './shot-cue.js';
import { ShotFormation } from './shot-formation.js';
import { Retime } from './shot-retime.js';
import { Rider } from './shot-rider.js';

export const SHOT_FORMAT = 'fleet-rail-shot';
export const SHOT_VERSION = 2;

/** First and last frame, both played. */
export class FrameRange {
  @Whole(-1_000_000, 1_000_000) first = 1;
  @Whole(-1_000_000, 1_000_000) last = 240;
}

/** File of a model: beside the shot file, or kept by the server. Exactly one of the two. */
export class ModelSource {
  @rule(
    'the name of a file beside the shot file, and no asset beside it',
    (v) => v === undefined || (typeof v === 'string' && /^[^/\\\0]{1,200}$/.test(v) && v !== '..'),
    { type: 'string', pattern: '^[^/\\\\\\0]{1,200}$', not: { const: '..' } },
  )
  file?: string;
  @rule(
    'the id of a model on the server, and no file beside it',
    (v) => v === undefined || (typeof v === 'string' && /^[\w.-]{1,64}$/.test(v)),
    { type: 'string', pattern: '^[\\w.-]{1,64}$' },
  )
  asset?: string;
}

/** A model for riders. */
export class ShotModel {
  @Id() id!: string;
  @Name() name!: string;
  @Nested(() => ModelSource) source!: ModelSource;
}

/** The ground: a model, or some of its nodes; a level floor while there is no model. */
export class GroundChoice {
  @TextOrNull() model: string | null = null;
  /** How high the floor is while there is no model; null for none. */
  @rule(
    'a height in metres from -1000000 to 1000000, or null',
    (v) => v === null || (typeof v === 'number' && Math.abs(v) <= 1e6),
    orNull({ type: 'number', minimum: -1e6, maximum: 1e6 }),
  )
  level: number | null = null;
  @Texts(1_000) nodes: string[] = [];
}

/**
 * The shot: everything an animator decides, and nothing that is computed from it.
 *
 * Plain immutable data, version 2 of the format. The classes give the types, the defaults and
 * the rules; {@link parseShot} is the only way in from outside.
 */
export class Shot {
  @OneOf(SHOT_FORMAT) format!: typeof SHOT_FORMAT;
  @rule(String(SHOT_VERSION), (v) => v === SHOT_VERSION, { const: SHOT_VERSION })
  version!: typeof SHOT_VERSION;
  @Name() name!: string;
  @Amount('frames per second', 0.01, 1_000) fps = 24;
  @Nested(() => FrameRange) range: FrameRange = new FrameRange();
  @Flag() loop = false;
  @NestedList(() => ShotPath, LIMITS.paths) paths: ShotPath[] = [];
  @NestedList(() => ShotModel, LIMITS.models) models: ShotModel[] = [];
  @NestedList(() => Rider, LIMITS.riders) riders: Rider[] = [];
  @Nested(() => GroundChoice) ground: GroundChoice = new GroundChoice();
  /** Which camera is looked through when, in order of frame. */
  @NestedList(() => Cut, LIMITS.cuts) cuts: Cut[] = [];
  /** Shot time bent into the time of the work under it. */
  @NestedList(() => Retime, LIMITS.retimes) retimes: Retime[] = [];
  /** Actions that start when something else reaches a distance or time. */
  @NestedList(() => Cue, LIMITS.cues) cues: Cue[] = [];
  /** Which riders are copies of which, and how they were placed. */
  @NestedList(() => ShotFormation, LIMITS.riders) formations: ShotFormation[] = [];
  /** Views of the stage, kept by name. */
  @NestedList(() => KeptView, LIMITS.views) views: KeptView[] = [];
  /** Dressing along paths. */
  @NestedList(() => Dressing, LIMITS.laid) dressing: Dressing[] = [];
  /** Limits of the checks, and dismissed findings. */
  @Nested(() => Checks) checks: Checks = new Checks();
}
