export {
  LOCAL,
  initialPose,
  nodeNamed,
  clipNamed,
  type Clip,
  type ClipChannel,
  type NodeHierarchy,
  type HierarchyNode,
} from './hierarchy/node-hierarchy.js';
export type { WheelJoint } from './hierarchy/wheel-joints.js';
export { NO_PARTS, type MovedNode, type MovedParts } from './hierarchy/node-driver.js';
export { restSpace, toModelSpace } from './hierarchy/model-space.js';
export { withClipsOf } from './hierarchy/borrowed-clips.js';
export { nodeNames } from './hierarchy/node-names.js';
export { findGait, type FoundGait } from './gait/find-gait.js';
export { compileWalkPhase, type WalkPhase } from './gait/walk-phase.js';
export { compileWalk, type Plant, type Walk } from './gait/walk.js';
export { pairedName, proposeCycle } from './gait/propose-cycle.js';
export { cycleBy } from './gait/cycle-by.js';
export { compileCycle, type CycleMotion } from './gait/cycle-value.js';
export type { IdleSpan } from './gait/idle-spans.js';
export { clipDriver, playBlocks, type PlayedBlock, type PlayedClip } from './gait/clip-blocks.js';
export { addBlock, beginBlock, endBlock, moveBlock } from './gait/change-blocks.js';
