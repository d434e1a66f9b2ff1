export { sampleShot, sampleRider, frameCount, frameTime, type SampledShot } from './sample-shot.js';
