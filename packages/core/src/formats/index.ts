export { FormatError } from './format-error.js';
export { readSvg, type SvgPaths } from './svg-read.js';
export { readPaths, PATH_FILES, type Imported, type ImportOptions } from './paths-read.js';
export { writeCsv, CSV_HEADER } from './csv-write.js';
export { readModel, type ModelFacts, type ReadModel } from './model-read.js';
export { writeGlb } from './glb-write.js';
