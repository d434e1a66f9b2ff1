export {
  evaluateShot,
  isMoving,
  movesByItself,
  withRidersBehind,
  type EvaluatedShot,
} from './evaluate/evaluate-shot.js';
export { riderSources, sameSources, type RiderSources } from './evaluate/rider-sources.js';
export type { RiderTiming } from './evaluate/rider-timing.js';
export type { Gauge, GaugeKind } from './evaluate/gauges.js';
export {
  NO_ASSETS,
  goesByGround,
  hierarchyOfRider,
  modelsInPlay,
  needsPhysics,
  type SceneAssets,
} from './evaluate/scene-assets.js';
export { needsAssets } from './evaluate/needs-assets.js';
export { physicsFor } from './evaluate/physics-for.js';
export type { RiderContact } from './evaluate/rider-contact.js';
export { cutsWithCues } from './evaluate/cued-cuts.js';
export { freeBadge, leastUsedColor } from './edits/new-rider.js';
export { poseOfRider, withAttachment, withRider } from './edits/change-rider.js';
export { attachRiders, firstAnchor, speedOnce, type Axes, type AttachPlan } from './edits/attach-riders.js';
export { takeFoundGait, takeFoundRig, withFoundGait, withFoundRig } from './edits/take-rig.js';
export { withOwnPace } from './edits/own-pace.js';
export { detachBack, detachHere, removeRider } from './edits/remove-riders.js';
export { formUp, type Formation } from './edits/formation.js';
export { evenSpacing } from './edits/even-spacing.js';
export { reform } from './edits/reform.js';
export { seamRateOf, type SeamRate } from './edits/seam-rates.js';
export { hangString, isRoadVehicle, type StringOf } from './edits/string.js';
export { putBack, attachToCarrier } from './edits/attach-to-carrier.js';
export { changeRate, scaleToFit } from './edits/change-time.js';
export { naturalStops, stopAsLongAs, walkersStops, type WalkersStops } from './edits/walkers-stops.js';
export {
  beginRiddenPathAt,
  joinRiddenPaths,
  openRiddenPath,
  reverseRiddenPath,
  splitRiddenPath,
} from './edits/change-ridden-path.js';
export { reshapeRiddenPath, type Correspondence } from './edits/keep-places.js';
export { holdDistance, type HeldDistance } from './edits/hold-distance.js';
export { switchCarrier } from './edits/switch-carrier.js';
export { COPY_PLACES, standCopies, type Copies } from './edits/copies.js';
export {
  channelFrames,
  channelLimits,
  channelPace,
  channelValue,
  channelsOf,
  keyChannel,
  withChannelKeys,
  type ChannelId,
} from './edits/channels.js';
export { changeString, commonGap, unitsBehind } from './edits/change-string.js';
export { withoutTurnouts } from './edits/without-turnouts.js';
export { withoutDressingOn } from './edits/keep-dressing.js';
export { withoutLooseBursts } from './edits/loose-bursts.js';
export { withFacing } from './edits/face-anew.js';
export { keysToEnd } from './edits/keys-to-end.js';
export { SEAM_UNITS, isOpen, seamOf, seamReport, type SeamGap } from './loop/seam-report.js';
export { canClose, closingsOf, type Closing } from './loop/closings.js';
export { cycleFrames, seamPartner } from './loop/partners.js';
export { relay, type Relay } from './loop/relay.js';
export {
  sampledRange,
  sampleBlocks,
  sampleShot,
  sampleRider,
  type SampleChoice,
  type SampledBlock,
  type SampledShot,
} from './bake/sample-shot.js';
export type { PartBetween } from './bake/between-frames.js';
export { sampleGauge, sampleParts, type SampledGauge, type SampledParts } from './bake/sampled-parts.js';
export { keysWithin } from './bake/thin-keys.js';
export { crossings, type Crossing } from './bake/crossings.js';
export { freeze, thaw } from './bake/freeze.js';
export { keyHere, keysOfRide, ownFrameOf, placementAt, putRider, type Placement } from './bake/hand-keys.js';
export { withOwnPath, type OwnPath } from './bake/own-path.js';
export { NO_MOVE, moveRiders, placementInWorld, type RidersMove } from './bake/move-riders.js';
