import type { Document, Node } from '@gltf-transform/core';
import type { GroundMesh } from '../contact/ground-surface.js';

/**
 * The triangles of a model, or of some of its nodes with what hangs on them, as they stand; null where there are none.
 * Every node's whole matrix is in the places, so a scale that nobody applied changes nothing.
 *
 * @param names of the nodes that count; all where there are none
 */
export function groundMeshOf(model: Document, names: readonly string[]): GroundMesh | null {
  const root = model.getRoot();
  const scene = root.getDefaultScene() ?? root.listScenes()[0];
  const wanted = new Set(names);
  const positions: number[] = [];
  const indices: number[] = [];
  const visit = (node: Node, counts: boolean) => {
    const taken = counts || wanted.has(node.getName());
    if (taken) addTriangles(node, positions, indices);
    node.listChildren().forEach((child) => visit(child, taken));
  };
  scene?.listChildren().forEach((node) => visit(node, wanted.size === 0));
  if (indices.length === 0) return null;
  return { positions: Float64Array.from(positions), indices: Uint32Array.from(indices) };
}

/** How a mesh lists its triangles: three corners each, a strip, or a fan. */
const MODES = { triangles: 4, strip: 5, fan: 6 };

function addTriangles(node: Node, positions: number[], indices: number[]): void {
  const m = node.getWorldMatrix();
  const corner: number[] = [];
  for (const primitive of node.getMesh()?.listPrimitives() ?? []) {
    const places = primitive.getAttribute('POSITION');
    const mode = primitive.getMode();
    if (!places || mode < MODES.triangles) continue;
    const first = positions.length / 3;
    for (let i = 0; i < places.getCount(); i++) {
      const [x, y, z] = places.getElement(i, corner);
      for (let k = 0; k < 3; k++) positions.push(m[k] * x + m[4 + k] * y + m[8 + k] * z + m[12 + k]);
    }
    const list = primitive.getIndices();
    const count = list?.getCount() ?? places.getCount();
    const at = (i: number) => first + (list ? list.getScalar(i) : i);
    if (mode === MODES.triangles) {
      for (let i = 0; i < count - (count % 3); i++) indices.push(at(i));
    } else {
      for (let i = 0; i + 2 < count; i++) indices.push(at(mode === MODES.fan ? 0 : i), at(i + 1), at(i + 2));
    }
  }
}
