export { softWeights } from './soft-weights.js';
export { setHandle, setHandlesKind } from './handles.js';
export { insertPoint } from './insert-point.js';
export { deletePoints } from './delete-points.js';
export { changeBasis } from './change-basis.js';
export { closePath, openPath } from './open-close.js';
export {
  TENSIONS,
  bridgeRadius,
  closeWithBridge,
  proposedBridge,
  nearestEnds,
  type JoinEnds,
  type ProposedBridge,
} from './join-paths.js';
export {
  applyTransform,
  middleOf,
  mapPoints,
  moveSomePoints,
  moveWholePath,
  movedPosition,
  type WorldMove,
} from './transform-path.js';
export { reversePath } from './reverse.js';
export { mirroredPosition, mirrorPath } from './mirror.js';
export { levelPath, liftPath } from './lift.js';
export { offsetSideways } from './offset-sideways.js';
export { detourPath } from './detour.js';
export { drapePath } from './drape.js';
export { roundCorners } from './round-corners.js';
export { smoothPath } from './smooth.js';
export { thinPath } from './thin.js';
export { resamplePath } from './resample.js';
export { arcThrough } from './arc-through.js';
export { bezierPath } from './bezier-path.js';
export { shapePath, type Shape } from './shapes.js';
export { centreLine, followEdge, meshEdges, type MeshEdges } from './edge-runs.js';
export { arcCorners } from './arc-corners.js';
