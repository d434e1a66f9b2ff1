/** Readers of a model's motion and ground, without the writers of model files. */
export { FormatError } from './format-error.js';
export { readModelDocument, type ModelFacts } from './model-read.js';
export { hierarchyOf } from './hierarchy-read.js';
export { groundMeshOf, groundOfShot, staticSetMeshOf } from './ground-read.js';
export { modelMeshOf } from './solids-read.js';
export { rigOf } from './model-read.js';
export { assetsOf } from './assets-read.js';
export { csvParts } from './csv-write.js';
export { textBlocks } from './text-blocks.js';
export { csvTables } from './csv-tables.js';
