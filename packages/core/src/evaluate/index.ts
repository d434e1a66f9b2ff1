export { evaluateShot, compiledPathOf, isMoving, type EvaluatedShot } from './evaluate-shot.js';
