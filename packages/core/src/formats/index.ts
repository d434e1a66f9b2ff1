export { FACTS_VERSION, FormatError, PATH_KINDS, type PathKind } from './format-facts.js';
export { readPaths } from './paths-read.js';
export { HEIGHTS, writePath, type WrittenPath } from './paths-write.js';
export { csvParts, writeCsv, CSV_HEADER } from './csv-write.js';
export {
  gltfIo,
  isBvh,
  readModel,
  readModelDocument,
  type ModelFacts,
  type ReadModel,
} from './model-read.js';
export { describeGlb, writeGlb, writeDressingGlb, type GlbChoice } from './glb-write.js';
export { textBlocks } from './text-blocks.js';
export { csvTables } from './csv-tables.js';
export type { ThinningFacts } from './thin-errors.js';
export { writeUsd, type UsdChoice, type UsdFiles } from './usd/usd-write.js';
export { packUsdz, packZip } from './usd/usd-package.js';
export { AS_IT_CAME, type ModelPlacing } from './intake/placed-model.js';
export {
  neededBy,
  placedModel,
  takeModel,
  takeModelWithFacts,
  type TakenModel,
} from './intake/take-model.js';
export { MODEL_ENDINGS, type GivenFile } from './intake/given-files.js';
export { hierarchyOf } from './hierarchy-read.js';
export { groundMeshOf, groundOfShot, staticSetMeshOf } from './ground-read.js';
export { modelMeshOf } from './solids-read.js';
export { checkSceneOf } from './check-scene-read.js';
export { assetsOf } from './assets-read.js';
