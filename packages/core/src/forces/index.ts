export {
  STATE,
  type BodySpec,
  type HungSpec,
  type LedSpec,
  type Physics,
  type PhysicsWorld,
  type WorldSpec,
} from './physics.js';
export { KeptSteps, stateBetween, type Stepped } from './simulation.js';
export { LED, PulledBodies, WANTED, type PulledSpec, type PulledWorld } from './pulled-bodies.js';
export { CARRIER, HangingParts, type HangingSpec } from './hanging-parts.js';
