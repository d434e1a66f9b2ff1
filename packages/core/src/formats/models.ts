/** What reads a model's motion and ground, for a thread of the page; without what writes files. */
export { FormatError } from './format-error.js';
export { readModelDocument, type ModelFacts } from './model-read.js';
export { hierarchyOf } from './hierarchy-read.js';
export { groundMeshOf, sceneryMeshOf } from './ground-read.js';
export { modelMeshOf } from './solids-read.js';
export { rigOf } from './model-read.js';
