import type { Document, Mesh, Node, Scene } from '@gltf-transform/core';
import type { Dressing } from '../document/shot-dressing.js';
import { PIECE, bendAlong, type DressingPieces } from '../effects/dressing/place-pieces.js';
import { dressingModels, type PlacedDressing } from '../effects/dressing/placed-dressings.js';
import type { SweptMesh } from '../effects/dressing/sweep-profile.js';
import type { Quat, Vec3 } from '../geometry/math/vec.js';
import type { ModelInstancers } from './model-instancer.js';
import { plainMaterial } from './glb-material.js';
import { numbersOf } from './gltf-scene.js';

/** Adds dressing to a scene: a node a piece, whose meshes are in the file once unless they are bent; one mesh a profile. */
export function addDressing(
  target: Document,
  scene: Scene,
  things: readonly PlacedDressing[],
  instancers: ModelInstancers,
): void {
  for (const thing of things) {
    const { laid, pieces, swept } = thing;
    const all = target.createNode(laid.name);
    if (swept) all.setMesh(sweptMesh(target, laid, swept));
    if (pieces) addPieces(target, all, thing, pieces, instancers);
    scene.addChild(all);
  }
}

function sweptMesh(target: Document, { name, color, ring }: Dressing, swept: SweptMesh): Mesh {
  const { positions, normals, uvs, indices } = swept;
  const buffer = target.getRoot().listBuffers()[0];
  const accessor = (kind: 'VEC2' | 'VEC3' | 'SCALAR', values: Float32Array | Uint32Array) =>
    target
      .createAccessor(name)
      .setType(kind)
      .setArray(values as Float32Array<ArrayBuffer>)
      .setBuffer(buffer);
  const primitive = target
    .createPrimitive()
    .setAttribute('POSITION', accessor('VEC3', Float32Array.from(positions)))
    .setAttribute('NORMAL', accessor('VEC3', normals))
    .setAttribute('TEXCOORD_0', accessor('VEC2', uvs))
    .setIndices(accessor('SCALAR', indices))
    .setMaterial(plainMaterial(target, name, color).setDoubleSided(!ring));
  return target.createMesh(name).addPrimitive(primitive);
}

function addPieces(
  target: Document,
  all: Node,
  { laid, path }: PlacedDressing,
  { count, places, models, sides }: DressingPieces,
  instancers: ModelInstancers,
): void {
  const worn = dressingModels(laid);
  for (let i = 0; i < count; i++) {
    const at = PIECE.numbers * i;
    const piece = target.createNode(`${laid.name} ${i + 1}`);
    all.addChild(piece);
    instancers.instantiate(piece, worn[models[i]], laid.bend);
    const size = places[at + PIECE.size];
    if (laid.bend) {
      const bent = { distance: places[at + PIECE.distance], side: sides[i], size };
      bendNode(target, laid, path, bent, piece);
    } else
      piece
        .setTranslation([...places.subarray(at, at + 3)] as Vec3)
        .setRotation([...places.subarray(at + PIECE.rotation, at + PIECE.size)] as Quat)
        .setScale([size, size, size]);
  }
}

/** Replaces the meshes under a piece by what they are once they follow the curve. */
function bendNode(
  target: Document,
  laid: Dressing,
  path: PlacedDressing['path'],
  bent: Parameters<typeof bendAlong>[2],
  piece: Node,
): void {
  const buffer = target.getRoot().listBuffers()[0];
  const nodes: Node[] = [];
  piece.traverse((node) => nodes.push(node));
  for (const node of nodes) {
    const mesh = node.getMesh();
    if (mesh === null) continue;
    const to = node.getWorldMatrix();
    const own = target.createMesh(mesh.getName());
    for (const primitive of mesh.listPrimitives()) {
      const position = primitive.getAttribute('POSITION');
      if (!position) continue;
      const places = moved(numbersOf(position), to, 1);
      const normal = primitive.getAttribute('NORMAL');
      const ways = normal && moved(numbersOf(normal), to, 0);
      bendAlong(laid, path, bent, places, ways);
      const copy = primitive.clone();
      const accessor = (values: Float32Array<ArrayBuffer>) =>
        target.createAccessor(laid.name).setType('VEC3').setArray(values).setBuffer(buffer);
      copy.setAttribute('POSITION', accessor(Float32Array.from(places)));
      if (ways) copy.setAttribute('NORMAL', accessor(unit(ways)));
      // Their directions are those of the straight piece.
      copy.setAttribute('TANGENT', null);
      own.addPrimitive(copy);
    }
    // A bent mesh has its position in its vertices.
    piece.addChild(target.createNode(node.getName()).setMesh(own));
    node.setMesh(null);
  }
  for (const child of piece.listChildren()) if (!holdsMesh(child)) child.dispose();
}

function holdsMesh(node: Node): boolean {
  return node.getMesh() !== null || node.listChildren().some(holdsMesh);
}

function moved(values: ArrayLike<number>, m: readonly number[], w: 0 | 1): Float64Array {
  const out = new Float64Array(values.length);
  for (let i = 0; i < values.length; i += 3)
    for (let k = 0; k < 3; k++)
      out[i + k] = m[k] * values[i] + m[4 + k] * values[i + 1] + m[8 + k] * values[i + 2] + w * m[12 + k];
  return out;
}

function unit(ways: Float64Array): Float32Array<ArrayBuffer> {
  for (let i = 0; i < ways.length; i += 3) {
    const size = Math.hypot(ways[i], ways[i + 1], ways[i + 2]) || 1;
    for (let k = 0; k < 3; k++) ways[i + k] /= size;
  }
  return Float32Array.from(ways);
}
