export { findFacing, type FoundFacing } from './find-facing.js';
export type { ModelPart } from './round-part.js';
export { MODEL_UNITS, likelyUnit, type ModelUnit } from './likely-unit.js';
