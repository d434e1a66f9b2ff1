export {
  STATE,
  type BodySpec,
  type LedSpec,
  type Physics,
  type PhysicsWorld,
  type WorldSpec,
} from './forces/physics.js';
export { KeptSteps, stateBetween, type Stepped } from './forces/simulation.js';
export { LED, PulledBodies, WANTED, type PulledSpec, type PulledWorld } from './forces/pulled-bodies.js';
export { CARRIER, HangingParts, SWING, swingBetween, type HangingSpec } from './forces/hanging-parts.js';
export { turnBetween } from './forces/turn-between.js';
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
export { compileSpray, writePlace, type EmitterAt, type EmitterWay } from './spray/births.js';
export { READY_SPRAYS, type ReadySpray } from './spray/ready-sprays.js';
export { MOST_PIECES, laidSpots, laidStretch, type LaidStretch } from './dressing/laid-spots.js';
export { PIECE, bendAlong, layPieces, type LaidPieces } from './dressing/lay-pieces.js';
export { sweepProfile, type SweptMesh } from './dressing/sweep-profile.js';
export {
  groundItself,
  groundWithLaid,
  isLaidGround,
  joined,
  laidCurve,
  sweptOf,
} from './dressing/laid-ground.js';
export { READY_PROFILES, type ReadyProfile } from './dressing/ready-profiles.js';
export { laidThings, modelsLaid, type LaidThing } from './dressing/laid-things.js';
export { profileOfPath } from './dressing/profile-of-path.js';
