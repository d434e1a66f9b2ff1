export {
  evaluateShot,
  isMoving,
  movesByItself,
  withRidersBehind,
  type EvaluatedShot,
} from './evaluate-shot.js';
export { compiledPathOf, curveRidden } from './compiled-path-of.js';
export { shownFrames, type ShownFrames } from './shown-frames.js';
export type { Gauge, GaugeKind } from './gauges.js';
export { NO_SCENERY, goesByGround, modelsInPlay, puppetOfRider, type Scenery } from './scenery.js';
export type { RiderContact } from './rider-contact.js';
