export {
  LOCAL,
  nodeNamed,
  clipNamed,
  type Clip,
  type ClipChannel,
  type Puppet,
  type PuppetNode,
} from './puppet.js';
export type { Joint } from './joints.js';
export { NO_PARTS, type MovedNode, type MovedParts } from './mover.js';
export { withClipsOf } from './borrowed-clips.js';
