export { boxMesh } from './box-mesh.js';
export type { ModelMesh, PartMesh } from './model-mesh.js';
export type { TriangleMesh } from './triangle-mesh.js';
export { boxMeetsStretch, depthOf, distanceToBox, type TurnedBox } from './turned-box.js';
export { triangulate } from './triangulate.js';
