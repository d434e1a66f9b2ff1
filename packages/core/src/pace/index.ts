export { compilePace, type CompiledPace } from './compile-pace.js';
export { moveKey } from './move-key.js';
export { changeUnit } from './change-unit.js';
