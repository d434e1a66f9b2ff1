import type { Vec3 } from '../math/vec.js';
import {
  Amount,
  Flag,
  Id,
  OneOf,
  Part,
  PartOrNull,
  Parts,
  Point,
  Text,
  TextOrNull,
  Whole,
  rule,
} from './constraints.js';
import { LIMITS } from './limits.js';
import { Camera } from './shot-camera.js';
import { AXES, type Axis } from './shot-facing.js';
import { Hitch } from './shot-hitch.js';
import { Transform } from './transform.js';

export const KINDS = [
  'vehicle',
  'camera',
  'character',
  'creature',
  'prop',
  'light',
  'emitter',
  'carrier',
] as const;
export type Kind = (typeof KINDS)[number];

/** Where a rider stands on its path and is coupled: metres ahead of its origin along its nose, before its scale. */
export class Chassis {
  @Amount('metres') frontAxle = 0;
  @Amount('metres') rearAxle = 0;
  @Amount('metres') frontCoupling = 0;
  @Amount('metres') rearCoupling = 0;
}

/** One wheel of the model: a node that turns about its axle. */
export class Wheel {
  @Text() node!: string;
  @Point() centre: Vec3 = [0, 0, 0];
  @Amount('metres', 1e-6, 1e6) radius = 0.4;
  @OneOf(...AXES) axle: Axis = '+x';
  @Flag() steers = false;
  @Flag() drives = true;
}

/** The steering wheel. */
export class Steering {
  @TextOrNull() node: string | null = null;
  @OneOf(...AXES) axis: Axis = '+z';
  @Amount('turns of the steering wheel per turn of the road wheel') ratio = 14;
}

/** The sprung part that leans and dips. */
export class Body {
  @TextOrNull() node: string | null = null;
  @Amount('degrees per g') rollPerG = 4;
  @Amount('degrees per g') pitchPerG = 2;
  @Amount('seconds', 0, 1e3) settle = 0.35;
}

/** A walk or run that advances with the distance travelled. */
export class Gait {
  @Text() clip!: string;
  @Amount('metres per cycle', 1e-6, 1e6) stride!: number;
  @Amount('cycles') phase = 0;
  @TextOrNull() idle: string | null = null;
  @Amount('seconds', 0, 1e3) blend = 0.25;
  @Flag() plant = true;
}

/** A motion of one node that repeats by itself. */
export class Cycle {
  @Text() node!: string;
  @OneOf(...AXES) axis: Axis = '+x';
  @Amount('degrees') amplitude!: number;
  @Amount('cycles per second or per metre') rate!: number;
  @OneOf('time', 'distance') by: 'time' | 'distance' = 'time';
  @Amount('degrees') rest = 0;
  @OneOf('sine', 'pulse', 'noise') shape: 'sine' | 'pulse' | 'noise' = 'sine';
  @Whole(0, 2 ** 31 - 1) seed = 0;
}

/** A thing that can travel: what it looks like, where it rests, and the path it is hitched to. */
export class Rider {
  @Id() id!: string;
  @Text() name!: string;
  @OneOf(...KINDS) kind: Kind = 'prop';
  @rule('the id of a model, or null', (v) => v === null || typeof v === 'string')
  model: string | null = null;
  @Text(8) badge = 'R1';
  /** Which of the eight line colours. */
  @Whole(0, 7) color = 0;
  @rule('the id of a rider, or null', (v) => v === null || typeof v === 'string')
  parent: string | null = null;
  @Part(() => Transform) rest: Transform = new Transform();
  @PartOrNull(() => Hitch) hitch: Hitch | null = null;
  @PartOrNull(() => Chassis) chassis: Chassis | null = null;
  /** What it sees; only a rider that has one is a camera to look through. */
  @PartOrNull(() => Camera) camera: Camera | null = null;
  @Parts(() => Wheel, LIMITS.partsPerRider) wheels: Wheel[] = [];
  @Part(() => Steering) steering: Steering = new Steering();
  @Part(() => Body) body: Body = new Body();
  @PartOrNull(() => Gait) gait: Gait | null = null;
  @Parts(() => Cycle, LIMITS.partsPerRider) cycles: Cycle[] = [];
}
