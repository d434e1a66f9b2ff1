export {
  sampleShot,
  sampleRider,
  frameCount,
  frameTime,
  samplePart,
  type SampledPart,
  type SampledShot,
} from './sample-shot.js';
