export {
  evaluateShot,
  compiledPathOf,
  isMoving,
  withRidersBehind,
  type EvaluatedShot,
} from './evaluate-shot.js';
