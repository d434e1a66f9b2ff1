export { findFacing, type FoundFacing } from './find-facing.js';
export type { ModelPart } from './round-part.js';
