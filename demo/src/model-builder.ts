import { Document, WebIO, type Material, type Mesh, type Node } from '@gltf-transform/core';
import type { Vec3 } from '@fleet-rail/core';
import type { Triangles } from './shapes.js';

/** Colour as on a paint tin: red, green, blue from 0 to 255. */
export type Paint = readonly [number, number, number];

/** Builds one low-poly model: nodes that carry painted shapes. */
export class ModelBuilder {
  readonly document = new Document();
  readonly buffer = this.document.createBuffer();
  private readonly scene = this.document.createScene('scene');
  private readonly materials = new Map<string, Material>();

  constructor() {
    this.document.getRoot().getAsset().generator = 'Fleet Rail demo';
  }

  /** A node, at the root where no parent is given. */
  node(name: string, place: Vec3 = [0, 0, 0], parent?: Node, mesh?: Mesh): Node {
    const node = this.document.createNode(name).setTranslation(place);
    if (mesh) node.setMesh(mesh);
    if (parent) parent.addChild(node);
    else this.scene.addChild(node);
    return node;
  }

  /** A mesh of shapes, one primitive a paint. `joint` binds a shape to one joint of a skin. */
  mesh(name: string, parts: readonly { shape: Triangles; paint: Paint; joint?: number }[]): Mesh {
    const mesh = this.document.createMesh(name);
    const byPaint = new Map<string, { shape: Triangles; joints: number[]; paint: Paint }>();
    for (const { shape, paint, joint } of parts) {
      const key = paint.join();
      const group = byPaint.get(key) ?? { shape: [], joints: [], paint };
      for (const value of shape) group.shape.push(value);
      for (let i = 0; i < shape.length / 3; i++) group.joints.push(joint ?? 0);
      byPaint.set(key, group);
    }
    const skinned = parts.some((part) => part.joint !== undefined);
    for (const { shape, joints, paint } of byPaint.values()) {
      const primitive = this.document.createPrimitive().setMaterial(this.material(paint));
      primitive.setAttribute('POSITION', this.accessor('VEC3', Float32Array.from(shape)));
      primitive.setAttribute('NORMAL', this.accessor('VEC3', flatNormals(shape)));
      if (skinned) {
        const four = Uint8Array.from(joints.flatMap((joint) => [joint, 0, 0, 0]));
        const weights = Float32Array.from(joints.flatMap(() => [1, 0, 0, 0]));
        primitive.setAttribute('JOINTS_0', this.accessor('VEC4', four));
        primitive.setAttribute('WEIGHTS_0', this.accessor('VEC4', weights));
      }
      mesh.addPrimitive(primitive);
    }
    return mesh;
  }

  accessor(type: 'SCALAR' | 'VEC3' | 'VEC4' | 'MAT4', values: Float32Array | Uint8Array) {
    // Both lib types of typed arrays are one at run time.
    return this.document
      .createAccessor()
      .setType(type)
      .setArray(values as never)
      .setBuffer(this.buffer);
  }

  /** The file's bytes. */
  glb(): Promise<Uint8Array> {
    return new WebIO().writeBinary(this.document);
  }

  private material(paint: Paint): Material {
    const key = paint.join();
    const cached = this.materials.get(key);
    if (cached) return cached;
    const linear = paint.map((value) => Math.pow(value / 255, 2.2));
    const material = this.document
      .createMaterial(`paint ${key}`)
      .setBaseColorFactor([linear[0], linear[1], linear[2], 1])
      .setRoughnessFactor(0.85)
      .setMetallicFactor(0);
    this.materials.set(key, material);
    return material;
  }
}

function flatNormals(shape: Triangles): Float32Array {
  const out = new Float32Array(shape.length);
  for (let i = 0; i < shape.length; i += 9) {
    const [ax, ay, az, bx, by, bz, cx, cy, cz] = shape.slice(i, i + 9);
    const [ux, uy, uz] = [bx - ax, by - ay, bz - az];
    const [vx, vy, vz] = [cx - ax, cy - ay, cz - az];
    const normal = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    const size = Math.hypot(...normal) || 1;
    for (let corner = 0; corner < 3; corner++) {
      for (let k = 0; k < 3; k++) out[i + 3 * corner + k] = normal[k] / size;
    }
  }
  return out;
}
