export { compilePace } from './compile-pace.js';
export type { CompiledPace, Halt, Motion } from './compiled-pace.js';
export { moveKey } from './move-key.js';
export { changeUnit } from './change-unit.js';
export {
  beginAtPlace,
  drawByHandles,
  insertKey,
  moveKeys,
  quantiseKeys,
  scaleKeys,
  shiftFrom,
  stopAtKey,
  swapEnds,
  withEase,
} from './change-keys.js';
export { mapFrame, timesAsFast, withFrames, type FrameMap } from './in-time.js';
export { driveSeconds, topSpeedFor } from './drive-curve.js';
export { FIT, fitPace, type FittedPace } from './fit-pace.js';
export { DRIVE_PRESETS } from './drive-presets.js';
