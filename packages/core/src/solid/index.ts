export { boxMesh } from './box-mesh.js';
export { NO_SHAPES, type ModelMesh, type ModelShapes, type PartMesh } from './model-mesh.js';
export type { TriangleMesh } from './triangle-mesh.js';
export { boxMeetsStretch, depthOf, distanceToBox, type TurnedBox } from './turned-box.js';
export { triangulate } from './triangulate.js';
