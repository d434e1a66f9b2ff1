import type { Vec3 } from './vector.js';
import {
  IdOrNull,
  Amount,
  Flag,
  Id,
  OneOf,
  Nested,
  NestedOrNull,
  NestedList,
  Point,
  Name,
  Text,
  TextOrNull,
  Whole,
  rule,
  orNull,
} from './constraints.js';
import { LIMITS } from './limits.js';
import { Camera } from './shot-camera.js';
import { ParentKey } from './shot-parent-key.js';
import { Clearance } from './shot-clearance.js';
import { ClipBlock } from './shot-clip-block.js';
import { AXES, type Axis } from './shot-facing.js';
import { Emitter } from './shot-emitter.js';
import { RigidBody, HangingPart } from './shot-rigid-body.js';
import { Attachment } from './shot-attachment.js';
import { Frozen } from './shot-frozen.js';
import { Follow } from './shot-follow.js';
import { TransformKeys } from './shot-transform-keys.js';
import { RestAim } from './shot-rest-aim.js';
import { Shake } from './shot-shake.js';
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

/** Axles and couplings of a rider: metres ahead of its origin along its nose, before its scale. */
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

/** A part of a gait's cycle; `to` lies beyond 1 where it runs over the cycle's end. */
export class Stance {
  @Amount('of the cycle', 0, 1) from!: number;
  @Amount('of the cycle', 0, 2) to!: number;
}

/** A node that is planted on the ground, and its stance in the cycle. */
export class Foot {
  @Text() node!: string;
  @NestedList(() => Stance, LIMITS.partsPerRider) stances: Stance[] = [];
}

/** Clip of a walker while it is stopped: part of another clip. */
export class Act {
  /** Which of its stops, counted from 0. */
  @Whole(0, 10_000) stop = 0;
  @Text() clip!: string;
  @Amount('seconds', 0, 1e5) from = 0;
  /** The clip's own end where there is none. */
  @rule(
    'seconds after from, or null',
    (v) => v === null || (Number.isFinite(v) && (v as number) > 0),
    orNull({ type: 'number', exclusiveMinimum: 0 }),
  )
  to: number | null = null;
  /** Once over the whole stop, however long it is; or again and again at the clip's own rate. */
  @OneOf('stretch', 'repeat') fit: 'stretch' | 'repeat' = 'stretch';
}

/** A walk or run that advances with the distance travelled. */
export class Gait {
  @Text() clip!: string;
  /** Before the rider's scale. */
  @Amount('metres per cycle', 1e-6, 1e6) stride!: number;
  @Amount('cycles') phase = 0;
  /** A model whose clips are played by the names of nodes; the rider's own where there is none. */
  @IdOrNull('model')
  source: string | null = null;
  @TextOrNull() idle: string | null = null;
  /** Clips of setting off and of coming to a stop; the model's own, if it has any by name, where there are none. */
  @TextOrNull() startClip: string | null = null;
  @TextOrNull() stopClip: string | null = null;
  @Amount('seconds', 0, 1e3) blend = 0.25;
  @Flag() plant = true;
  @NestedList(() => Foot, LIMITS.partsPerRider) feet: Foot[] = [];
  @NestedList(() => Act, LIMITS.partsPerRider) acts: Act[] = [];
  /** Quicker steps than this are warned of. */
  @Amount('steps per second', 0, 100) cadence = 2.6;
}

export const CYCLE_SHAPES = ['sine', 'pulse', 'noise', 'steady'] as const;
export type CycleShape = (typeof CYCLE_SHAPES)[number];

/** A motion of one node that repeats by itself. */
export class Cycle {
  @Text() node!: string;
  /** About its own axis, along it, or by the weight of one of its shapes. */
  @OneOf('turn', 'slide', 'morph') kind: 'turn' | 'slide' | 'morph' = 'turn';
  @OneOf(...AXES) axis: Axis = '+x';
  /** Which shape of the mesh, for `morph`. */
  @Whole(0, 1_000) morph = 0;
  @Amount('degrees, metres or weight') amplitude!: number;
  @Amount('cycles per second or per metre') rate!: number;
  @OneOf('time', 'distance') by: 'time' | 'distance' = 'time';
  @Amount('degrees, metres or weight') rest = 0;
  /** `steady` goes on for ever in one direction, one whole turn or one amplitude a cycle. */
  @OneOf(...CYCLE_SHAPES) shape: CycleShape = 'sine';
  @Amount('cycles') phase = 0;
  /** In a loop it is brought to the nearest whole number of cycles. */
  @Flag() whole = false;
  /** How long it takes to swell at the beginning of the ride, and to fade at its end. */
  @Amount('seconds', 0, 1e5) rampIn = 0;
  @Amount('seconds', 0, 1e5) rampOut = 0;
  /** Of noise; else where in its cycle a copy begins: 0 where `phase` says. */
  @Whole(0, 2 ** 31 - 1) seed = 0;
  /** A part that does the same as seen in a mirror: the other one of a pair of wings. */
  @TextOrNull() mirror: string | null = null;
}

/** A ball that rolls on the ground about its middle, or the node that is one. */
export class Ball {
  @TextOrNull() node: string | null = null;
  @Point() centre: Vec3 = [0, 0, 0];
  @Amount('metres', 1e-6, 1e6) radius!: number;
}

/** A thing that can travel: its model, its rest pose, and its attachment to a path. */
export class Rider {
  @Id() id!: string;
  @Name() name!: string;
  @OneOf(...KINDS) kind: Kind = 'prop';
  @IdOrNull('model')
  model: string | null = null;
  @Name(8) badge = 'R1';
  /** Which of the eight line colours. */
  @Whole(0, 7) color = 0;
  @IdOrNull('rider')
  parent: string | null = null;
  @Nested(() => Transform) rest: Transform = new Transform();
  /** Rest pose before it was attached to its carrier. */
  @NestedOrNull(() => Transform) restBeforeParent: Transform | null = null;
  @NestedOrNull(() => Attachment) attachment: Attachment | null = null;
  @NestedOrNull(() => Chassis) chassis: Chassis | null = null;
  /** Its lens; only a rider with one is a camera. */
  @NestedOrNull(() => Camera) camera: Camera | null = null;
  @NestedList(() => Wheel, LIMITS.partsPerRider) wheels: Wheel[] = [];
  @Nested(() => Steering) steering: Steering = new Steering();
  @Nested(() => Body) body: Body = new Body();
  @NestedOrNull(() => Ball) ball: Ball | null = null;
  @NestedOrNull(() => Gait) gait: Gait | null = null;
  @NestedList(() => Cycle, LIMITS.partsPerRider) cycles: Cycle[] = [];
  /** Clips of its model that are played over its gait, each from a frame on. */
  @NestedList(() => ClipBlock, LIMITS.partsPerRider) clips: ClipBlock[] = [];
  /** Clearances while it rides a path. */
  @NestedOrNull(() => Clearance) clearance: Clearance | null = null;
  /** How it sways where it is held by hand. */
  @NestedOrNull(() => Shake) shake: Shake | null = null;
  /** Its hand keys, while it rides no path. */
  @NestedOrNull(() => TransformKeys) transformKeys: TransformKeys | null = null;
  /** Its target, while it rides no path. */
  @NestedOrNull(() => RestAim) restAim: RestAim | null = null;
  /** Rider that it follows, while it rides no path itself. */
  @NestedOrNull(() => Follow) follow: Follow | null = null;
  /** Carriers over time, whatever it rides. */
  @NestedList(() => ParentKey, LIMITS.keysPerPace) parentKeys: ParentKey[] = [];
  /** Rigid body that moves it instead of its ride alone. */
  @NestedOrNull(() => RigidBody) rigidBody: RigidBody | null = null;
  /** Parts of its model that swing on it. */
  @NestedList(() => HangingPart, LIMITS.partsPerRider) hangingParts: HangingPart[] = [];
  /** Its emitter. */
  @NestedOrNull(() => Emitter) emitter: Emitter | null = null;
  /** Bake that plays instead of all of that, until it is thawed. */
  @NestedOrNull(() => Frozen) frozen: Frozen | null = null;
}
