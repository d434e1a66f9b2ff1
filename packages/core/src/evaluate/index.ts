export { evaluateShot, isMoving, withRidersBehind, type EvaluatedShot } from './evaluate-shot.js';
export { compiledPathOf, curveRidden } from './compiled-path-of.js';
export { shownFrames, type ShownFrames } from './shown-frames.js';
