export { ShotError, inWords } from './shot-error.js';
export { LIMITS } from './limits.js';
export { parseShot, parseShotText, writeShotText } from './parse-shot.js';
export { defaultsOf } from './defaults.js';
export { shotFieldTables, shotSchema } from './shot-schema.js';
export { newShot } from './new-shot.js';
export { plainName } from './plain-name.js';
export { freeId, freeName, numberedName } from './free-name.js';
export { Shot, ShotModel, FrameRange, SHOT_FORMAT, SHOT_VERSION } from './shot.js';
export { ShotPath, PathPoint, Mark, BASES, HANDLES, type Basis, type Handles } from './shot-path.js';
export {
  CYCLE_SHAPES,
  Act,
  Ball,
  Cycle,
  Foot,
  Gait,
  KINDS,
  Rider,
  Wheel,
  type Body,
  type Chassis,
  type CycleShape,
  type Kind,
  type Stance,
  type Steering,
} from './shot-rider.js';
export {
  ANCHORS,
  Attachment,
  type Anchor,
  type Bank,
  type GroundContact,
  type Offset,
} from './shot-attachment.js';
export { AXES, type Aim, type AimTarget, type Axis, type Facing } from './shot-facing.js';
export type { FocalKey, InfluenceKey, KeyEase } from './shot-keys.js';
export { Camera, type Cut } from './shot-camera.js';
export { refuseCircles, riderGroups } from './rider-graph.js';
export {
  OUTSIDES,
  Pace,
  PaceKey,
  Variation,
  type Drive,
  type Ease,
  type Outside,
  type SpeedKey,
  type DriveStop,
  type Take,
  type Zone,
} from './shot-pace.js';
export { Clearance, ClearOf } from './shot-clearance.js';
export { KeptView } from './shot-view.js';
export { CheckLimits, Checks, FINDING_KINDS, Dismissal, type FindingKind } from './shot-checks.js';
export { Shake } from './shot-shake.js';
export { Retime, type RetimeKey } from './shot-retime.js';
export { Cue, CueAction, CueTrigger, type CueKey } from './shot-cue.js';
export { frameCount, frameTime } from './frames.js';
export { aimedAt, axesOf } from './rider-axes.js';
export { Transform } from './transform.js';
export { TransformKeys, PlaceKey } from './shot-transform-keys.js';
export { RestAim } from './shot-rest-aim.js';
export { Frozen, FrozenPart, FrozenTrack } from './shot-frozen.js';
export { ParentKey } from './shot-parent-key.js';
export { cuesBehind, eachAction } from './each-action.js';
export { withKey } from './with-key.js';
export { CLIP_STEPS, ClipBlock } from './shot-clip-block.js';
export { ShotFormation } from './shot-formation.js';
export { Follow } from './shot-follow.js';
export { Dressing, DressingOffset, OtherPiece } from './shot-dressing.js';
export { Burst, Emitter } from './shot-emitter.js';
export { RigidBody, HangingPart } from './shot-rigid-body.js';
