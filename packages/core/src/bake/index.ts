export { sampleShot, frameCount, frameTime, type SampledShot } from './sample-shot.js';
