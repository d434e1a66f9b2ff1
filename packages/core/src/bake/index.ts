export { sampleBlocks, sampleShot, sampleRider, type SampledBlock, type SampledShot } from './sample-shot.js';
export { sampleGauge, sampleParts, type SampledGauge, type SampledParts } from './sampled-parts.js';
export { keysWithin } from './thin-keys.js';
export { crossings, type Crossing } from './crossings.js';
