export {
  framesOf,
  sampleBlocks,
  sampleShot,
  sampleRider,
  type SampleChoice,
  type SampledBlock,
  type SampledShot,
} from './sample-shot.js';
export type { PartBetween } from './between-frames.js';
export { sampleGauge, sampleParts, type SampledGauge, type SampledParts } from './sampled-parts.js';
export { keysWithin } from './thin-keys.js';
export { crossings, type Crossing } from './crossings.js';
export { freeze, thaw } from './freeze.js';
export { keyHere, keysOfRide, ownFrameOf, placementAt, putRider, type Placement } from './hand-keys.js';
export { withOwnPath, type OwnPath } from './own-path.js';
export { NO_MOVE, moveRiders, placementInWorld, type RidersMove } from './move-riders.js';
