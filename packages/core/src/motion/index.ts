export { compilePace } from './pace/compile-pace.js';
export { moveKey } from './pace/move-key.js';
export { addStop } from './pace/add-stop.js';
export { fitKeys, keyedStretch } from './pace/fit-keys.js';
export { gripOf } from './pace/grip-of.js';
export { changeUnit, metresPerValue } from './pace/change-unit.js';
export {
  startPaceAt,
  drawByHandles,
  insertKey,
  moveKeys,
  quantiseKeys,
  scaleKeys,
  shiftFrom,
  stopAtKey,
  swapEnds,
  easeKeys,
} from './pace/change-keys.js';
export { SLOWEST, addSpeed, moveSpeed, stretchAtSpeed } from './pace/change-speeds.js';
export { driveSeconds, topSpeedFor } from './pace/drive-curve.js';
export { changeMode, fitPace, keysThrough } from './pace/fit-pace.js';
export { isCoarseDrive, driveCell } from './pace/drive-limits.js';
export { DRIVE_PRESETS } from './pace/drive-presets.js';
export type { PaceStop } from './pace/compiled-pace.js';
export { addRetimeKey, halfSpeedAround, stretchRetime } from './timing/change-retime.js';
export { hasOwnPace, headOf, leaderIdOf, leadingOf } from './timing/leader.js';
export type { FrameMapping, FrameStep } from './timing/frame-step.js';
export { UNCHANGED_FRAMES, mapFrames } from './timing/map-frames.js';
export { shownAt, sourceFrame } from './timing/retiming.js';
export { risingFrames } from './timing/rising-frames.js';
export { POSE, type PoseAt } from './pose/pose.js';
export { axisVector, axesToTravel } from './pose/axes.js';
export { offsetAt } from './pose/keyed-offset.js';
export { pointOn } from './pose/point-on.js';
export { headingDeg, pitchDeg } from './pose/heading.js';
export { cameraAt, compileFocal, fieldOfView, focalAt, pictureHalves } from './pose/camera.js';
export { displaceFrame, displacedTwice } from './pose/displace.js';
export { anglesOf, offsetRotation } from './pose/offset-rotation.js';
export { positionIn, rotationIn } from './pose/pose.js';
export { carriedPart } from './pose/carriers.js';
export { newAttachment } from './ride/new-attachment.js';
export { chassisOf, couplingLength, hasWheelbase, riderLength, type ModelBox } from './ride/chassis.js';
export { suggestBankWindow } from './ride/suggest-window.js';
export { contactPoints, ownAxes, ownPosition, type OwnAxes } from './ride/contact-points.js';
export { handTrackOf, type HandTrack } from './ride/hand-track.js';
