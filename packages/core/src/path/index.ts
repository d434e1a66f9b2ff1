export { CompiledPath } from './compiled-path.js';
export { compilePath } from './compile-path.js';
export { PathError } from './path-error.js';
export { reversePath } from './reverse.js';
export { movePoints } from './move-points.js';
export { pathOutline } from './outline.js';
export { toWorld, toLocal } from './placement.js';
