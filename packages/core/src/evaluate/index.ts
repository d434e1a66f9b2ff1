export {
  evaluateShot,
  isMoving,
  movesByItself,
  withRidersBehind,
  type EvaluatedShot,
} from './evaluate-shot.js';
export { shownFrames, type ShownFrames } from './shown-frames.js';
export type { Gauge, GaugeKind } from './gauges.js';
export { NO_ASSETS, goesByGround, modelsInPlay, hierarchyOfRider, type SceneAssets } from './scene-assets.js';
export type { RiderContact } from './rider-contact.js';
