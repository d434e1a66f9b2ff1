export { addRetimeKey, halfSpeedAround, stretchRetime } from './change-retime.js';
export { hasOwnPace, headOf, leaderIdOf, leadingOf } from './leader.js';
export type { FrameMapping, FrameStep } from './frame-step.js';
export { UNCHANGED_FRAMES, mapFrames } from './map-frames.js';
export { shownAt, sourceFrame } from './retiming.js';
export { risingFrames } from './rising-frames.js';
