export { compilePace } from './compile-pace.js';
export { moveKey } from './move-key.js';
export { addStop } from './add-stop.js';
export { fitKeys, keyedStretch } from './fit-keys.js';
export { gripOf } from './grip-of.js';
export { changeUnit, metresPerValue } from './change-unit.js';
export {
  beginAt,
  drawByHandles,
  insertKey,
  moveKeys,
  quantiseKeys,
  scaleKeys,
  shiftFrom,
  stopAtKey,
  swapEnds,
  easeKeys,
} from './change-keys.js';
export { SLOWEST, addSpeed, moveSpeed, stretchAtSpeed } from './change-speeds.js';
export { driveSeconds, topSpeedFor } from './drive-curve.js';
export { changeMode, fitPace, keysThrough } from './fit-pace.js';
export { isCoarseDrive, driveCell } from './drive-limits.js';
export { DRIVE_PRESETS } from './drive-presets.js';
export type { PaceStop } from './compiled-pace.js';
