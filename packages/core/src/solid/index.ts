export type { ModelMesh, PartMesh } from './model-mesh.js';
export { Solid, type TriangleMesh, type TurnedBox } from './solid.js';
export { boxMeetsStretch, depthOf, distanceToBox } from './turned-box.js';
