export { compileWheels, middleSteer, axleSense, type RollingWheel } from './rolling.js';
export { compileLean, type BodyLean } from './body-lean.js';
export { compileBall } from './ball-roll.js';
export { wheelFolds } from './wheel-symmetry.js';
export { findRig, onFrontAxle, type FoundRig, type RigPart } from './find-rig.js';
