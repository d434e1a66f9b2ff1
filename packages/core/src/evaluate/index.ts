export {
  evaluateShot,
  isMoving,
  movesByItself,
  withRidersBehind,
  type EvaluatedShot,
} from './evaluate-shot.js';
export { riderSources, sameSources, type RiderSources } from './rider-sources.js';
export type { RiderTiming } from './rider-timing.js';
export type { Gauge, GaugeKind } from './gauges.js';
export {
  NO_ASSETS,
  goesByGround,
  hierarchyOfRider,
  modelsInPlay,
  needsPhysics,
  type SceneAssets,
} from './scene-assets.js';
export { needsAssets } from './needs-assets.js';
export { physicsFor } from './physics-for.js';
export type { RiderContact } from './rider-contact.js';
export { cutsWithCues } from './cued-cuts.js';
