export { evaluateShot, isMoving, withRidersBehind, type EvaluatedShot } from './evaluate-shot.js';
export { compiledPathOf } from './compiled-path-of.js';
