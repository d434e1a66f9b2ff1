/** Facts about files for code that reads and writes none, without the libraries for that. */
export { FormatError } from './format-error.js';

/** As what a path is given out alone. */
export const PATH_KINDS = ['svg', 'obj', 'csv', 'glb'] as const;
export type PathKind = (typeof PATH_KINDS)[number];

/** Of what is found in models: told apart from what an earlier version found, so that kept models are looked at again. */
export const FACTS_VERSION = 2;
