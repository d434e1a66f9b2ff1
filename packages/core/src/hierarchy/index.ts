export {
  LOCAL,
  initialPose,
  nodeNamed,
  clipNamed,
  type Clip,
  type ClipChannel,
  type NodeHierarchy,
  type HierarchyNode,
} from './node-hierarchy.js';
export type { WheelJoint } from './wheel-joints.js';
export { NO_PARTS, type MovedNode, type MovedParts } from './node-driver.js';
export { restSpace, toModelSpace } from './model-space.js';
export { withClipsOf } from './borrowed-clips.js';
export { nodeNames } from './node-names.js';
