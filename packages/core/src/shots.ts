/** All of shots but what looks them over, which brings trees of triangles along: for programs that keep shots and hand them over. */
export * from './document/index.js';
export * from './geometry/index.js';
export * from './motion/index.js';
export * from './vehicle/index.js';
export * from './character/index.js';
export * from './effects/index.js';
export * from './shot/index.js';
export * from './pictures/index.js';
