export { DEGREES } from './math/angle.js';
export { GRAVITY } from './math/gravity.js';
export { simplifyGraph } from './math/simplify-graph.js';
export * from './math/new-matrix.js';
export * from './math/vec.js';
export { CompiledPath, type FrameReference } from './path/compiled-path.js';
export { compilePath } from './path/compile-path.js';
export { PathError } from './path/path-error.js';
export { pathOutline } from './path/outline.js';
export { toWorld, toLocal } from './path/placement.js';
export { pathFacts, type PathFacts } from './path/path-facts.js';
export { roughnessOf, type Roughness } from './path/roughness.js';
export { nearestToRay, type NearestPoint } from './path/nearest.js';
export { deviation } from './path/deviation.js';
export { controlPolygon, type ControlPolygon } from './path/control-polygon.js';
export { ribbonFrames } from './path/ribbon-frames.js';
export { curvatureComb, type CurvatureComb } from './path/comb.js';
export { heightProfile, type GroundHeight, type ProfilePoint } from './path/height-profile.js';
export { compiledPathOf, curveRidden } from './path/compiled-path-of.js';
export { softWeights } from './reshape/soft-weights.js';
export { setHandle, setHandlesKind } from './reshape/handles.js';
export { insertPoint } from './reshape/insert-point.js';
export { deletePoints } from './reshape/delete-points.js';
export { changeBasis } from './reshape/change-basis.js';
export { closePath, openPath } from './reshape/open-close.js';
export {
  TENSIONS,
  bridgeRadius,
  closeWithBridge,
  proposedBridge,
  nearestEnds,
  type JoinEnds,
  type ProposedBridge,
} from './reshape/join-paths.js';
export {
  applyTransform,
  middleOf,
  mapPoints,
  moveSomePoints,
  moveWholePath,
  movedPosition,
  type WorldMove,
} from './reshape/transform-path.js';
export { reversePath } from './reshape/reverse.js';
export { mirroredPosition, mirrorPath } from './reshape/mirror.js';
export { levelPath, liftPath } from './reshape/lift.js';
export { offsetSideways } from './reshape/offset-sideways.js';
export { detourPath } from './reshape/detour.js';
export { drapePath } from './reshape/drape.js';
export { roundCorners } from './reshape/round-corners.js';
export { smoothPath } from './reshape/smooth.js';
export { thinPath } from './reshape/thin.js';
export { resamplePath } from './reshape/resample.js';
export { arcThrough } from './reshape/arc-through.js';
export { bezierPath } from './reshape/bezier-path.js';
export { shapePath, type Shape } from './reshape/shapes.js';
export { centreLine, followEdge, meshEdges, type MeshEdges } from './reshape/edge-runs.js';
export { arcCorners } from './reshape/arc-corners.js';
export { boxMesh } from './solid/box-mesh.js';
export { NO_SHAPES, type ModelMesh, type ModelShapes, type PartMesh } from './solid/model-mesh.js';
export type { TriangleMesh } from './solid/triangle-mesh.js';
export { boxMeetsStretch, depthOf, distanceToBox, type TurnedBox } from './solid/turned-box.js';
export { triangulate } from './solid/triangulate.js';
export { GroundSurface, floorAt, type GroundMesh } from './ground/ground-surface.js';
export {
  trackByDistance,
  trackByFrame,
  trackNodes,
  type Band,
  type GroundTrack,
} from './ground/ground-track.js';
