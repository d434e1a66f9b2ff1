export { freeBadge, leastUsedColor } from './new-rider.js';
export { poseOfRider, withAttachment, withRider } from './change-rider.js';
export { attachRiders, firstAnchor, speedOnce, type Axes, type AttachPlan } from './attach-riders.js';
export { takeFoundGait, takeFoundRig, withFoundGait, withFoundRig } from './take-rig.js';
export { withOwnPace } from './own-pace.js';
export { detachBack, detachHere, removeRider } from './remove-riders.js';
export { formUp, type Formation } from './formation.js';
export { evenSpacing } from './even-spacing.js';
export { reform } from './reform.js';
export { seamRateOf, type SeamRate } from './seam-rates.js';
export { hangString, isRoadVehicle, type StringOf } from './string.js';
export { putBack, sitOn } from './sit-on.js';
export { changeRate, scaleToFit } from './change-time.js';
export { naturalStops, stopAsLongAs, walkersStops, type WalkersStops } from './walkers-stops.js';
export {
  beginRiddenPathAt,
  joinRiddenPaths,
  openRiddenPath,
  reverseRiddenPath,
  splitRiddenPath,
} from './change-ridden-path.js';
export { reshapeRiddenPath, type Correspondence } from './keep-places.js';
export { holdDistance, type HeldDistance } from './hold-distance.js';
export { handTo } from './hand-to.js';
export { COPY_PLACES, standCopies, type Copies } from './copies.js';
export {
  channelFrames,
  channelLimits,
  channelPace,
  channelValue,
  channelsOf,
  keyChannel,
  withChannelKeys,
  type ChannelId,
} from './channels.js';
export { changeString, commonGap, unitsBehind } from './change-string.js';
export { withoutTurnouts } from './without-turnouts.js';
export { withoutLaidOn } from './keep-laid.js';
export { withoutLooseBursts } from './loose-bursts.js';
export { withFacing } from './face-anew.js';
export { keysToEnd } from './keys-to-end.js';
