export {
  STATE,
  type BodySpec,
  type LedSpec,
  type Physics,
  type PhysicsWorld,
  type WorldSpec,
} from './physics.js';
export { KeptSteps, stateBetween, type Stepped } from './simulation.js';
export { LED, PulledBodies, WANTED, type PulledSpec, type PulledWorld } from './pulled-bodies.js';
export { CARRIER, HangingParts, SWING, swingBetween, type HangingSpec } from './hanging-parts.js';
export { turnBetween } from './turn-between.js';
