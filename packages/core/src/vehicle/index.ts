export { findFacing, type FoundFacing } from './facing/find-facing.js';
export type { ModelPart } from './facing/round-part.js';
export { MODEL_UNITS, likelyUnit, type ModelUnit } from './facing/likely-unit.js';
export { compileWheels, middleSteer, axleTravelSign, type RollingWheel } from './wheels/rolling.js';
export { compileLean, type BodyLean } from './wheels/body-lean.js';
export { compileBall } from './wheels/ball-roll.js';
export { findRig, onFrontAxle, type FoundRig, type RigPart } from './wheels/find-rig.js';
