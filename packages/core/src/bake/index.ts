export {
  sampleShot,
  sampleRider,
  frameCount,
  frameTime,
  samplePart,
  type SampledPart,
  type SampledShot,
} from './sample-shot.js';
export { crossings, type Crossing } from './crossings.js';
