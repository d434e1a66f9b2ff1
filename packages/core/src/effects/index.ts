export {
  STATE,
  type BodySpec,
  type KinematicSpec,
  type Physics,
  type PhysicsWorld,
  type WorldSpec,
} from './forces/physics.js';
export { KeptSteps, stateBetween, type Stepped } from './forces/simulation.js';
export {
  KINEMATIC,
  PulledBodies,
  WANTED,
  type PulledSpec,
  type PulledWorld,
} from './forces/pulled-bodies.js';
export { CARRIER, HangingParts, SWING, swingBetween, type HangingSpec } from './forces/hanging-parts.js';
export { rotationVectorBetween } from './forces/turn-between.js';
export {
  BIRTH,
  MOST_IN_GLB,
  PARTICLE,
  aliveAt,
  everyInGlb,
  mostAlive,
  mostInGlb,
  particleAt,
  type Flight,
  type Spray,
} from './spray/spray.js';
export { compileSpray, writePlace, type EmitterAt, type EmitterTrack } from './spray/births.js';
export { READY_SPRAYS, type ReadySpray } from './spray/ready-sprays.js';
export {
  MOST_PIECES,
  dressingSpots,
  dressingStretch,
  type DressingStretch,
} from './dressing/dressing-spots.js';
export { PIECE, bendAlong, placePieces, type DressingPieces } from './dressing/place-pieces.js';
export { sweepProfile, type SweptMesh } from './dressing/sweep-profile.js';
export {
  groundItself,
  groundWithDressing,
  isGroundDressing,
  joined,
  dressingCurve,
  sweptOf,
} from './dressing/dressing-ground.js';
export { READY_PROFILES, type ReadyProfile } from './dressing/ready-profiles.js';
export { placedDressings, dressingModels, type PlacedDressing } from './dressing/placed-dressings.js';
export { profileOfPath } from './dressing/profile-of-path.js';
