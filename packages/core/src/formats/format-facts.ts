/** Facts about files for code that reads and writes none, without the libraries for that. */
export { FormatError } from './format-error.js';

/** Kinds of exported path files. */
export const PATH_KINDS = ['svg', 'obj', 'csv', 'glb'] as const;
export type PathKind = (typeof PATH_KINDS)[number];

/** Version of facts found in models: kept models with older facts are read again. */
export const FACTS_VERSION = 2;
