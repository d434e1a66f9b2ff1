export * from './shots.js';
export * from './check/index.js';
