export * from './math/vec.js';
export * from './document/index.js';
export * from './path/index.js';
export * from './pace/index.js';
export * from './rider/index.js';
export * from './evaluate/index.js';
export * from './bake/index.js';
export * from './check/index.js';
