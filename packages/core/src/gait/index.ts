export { findGait, type FoundGait } from './find-gait.js';
export { compileFreeWalk, type FreeWalk } from './free-walk.js';
export { compileWalk, type Plant, type Walk } from './walk.js';
export { pairedName, proposeCycle } from './propose-cycle.js';
export { cycleBy } from './cycle-by.js';
export { compileCycle, type CycleMotion } from './cycle-value.js';
export type { IdleSpan } from './idle-spans.js';
export { clipDriver, playBlocks, type PlayedBlock, type PlayedClip } from './clip-blocks.js';
export { addBlock, beginBlock, endBlock, moveBlock } from './change-blocks.js';
