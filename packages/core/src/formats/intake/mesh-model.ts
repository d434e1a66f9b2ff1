import { Document, type Material } from '@gltf-transform/core';
import { weld } from '@gltf-transform/functions';
import { Color, type BufferGeometry, type Mesh, type MeshPhongMaterial } from 'three';
import { MTLLoader, type MaterialInfo } from 'three/examples/jsm/loaders/MTLLoader.js';
import { OBJLoader } from 'three/examples/jsm/loaders/OBJLoader.js';
import { PLYLoader } from 'three/examples/jsm/loaders/PLYLoader.js';
import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js';
import { FormatError } from '../format-error.js';
import { textOf } from '../text-of.js';
import { endingOf, type GivenFile } from './given-files.js';
import { namedIn, pictureName } from './named-in.js';

/** Material of an MTL file, as its reader keeps it. */
type Told = MaterialInfo;

/**
 * A mesh from an OBJ, STL or PLY file as a model: a node an object, with the colours and pictures its materials tell.
 *
 * @throws FormatError where there is no face in it
 */
export async function meshModel(
  file: GivenFile,
  find: (name: string) => GivenFile | null,
): Promise<Document> {
  const document = new Document();
  document.createBuffer();
  const scene = document.createScene(file.name.replace(/^.*[\\/]|\.[^.]*$/g, ''));
  const paints = new Paints(document, find);
  try {
    for (const { name, geometry, materials } of objectsOf(file, find, paints)) {
      const mesh = document.createMesh(name);
      for (const { start, count, of } of piecesOf(geometry)) {
        const primitive = document.createPrimitive().setMaterial(materials[of] ?? null);
        for (const [attribute, semantic, size] of ATTRIBUTES) {
          const given = geometry.getAttribute(attribute);
          if (!given) continue;
          const values = new Float32Array(count * size);
          for (let i = 0; i < count; i++)
            for (let k = 0; k < size; k++) {
              const vertex = geometry.index ? geometry.index.getX(start + i) : start + i;
              const value = given.getComponent(vertex, k);
              // Pictures are placed from their lower edge here, from the upper one in glTF.
              values[i * size + k] = semantic === 'TEXCOORD_0' && k === 1 ? 1 - value : value;
            }
          const type = size === 2 ? 'VEC2' : 'VEC3';
          const accessor = document.createAccessor().setType(type).setArray(values);
          primitive.setAttribute(semantic, accessor.setBuffer(document.getRoot().listBuffers()[0]));
        }
        mesh.addPrimitive(primitive);
      }
      scene.addChild(document.createNode(name).setMesh(mesh));
    }
  } catch (error) {
    if (error instanceof FormatError) throw error;
    throw new FormatError(file.name, `cannot be read as ${endingOf(file.name).slice(1).toUpperCase()}.`);
  }
  if (scene.listChildren().length === 0)
    throw new FormatError(file.name, 'holds no face; expected a mesh to see. Lines are imported as paths.');
  await document.transform(weld());
  return document;
}

const ATTRIBUTES = [
  ['position', 'POSITION', 3],
  ['normal', 'NORMAL', 3],
  ['uv', 'TEXCOORD_0', 2],
  ['color', 'COLOR_0', 3],
] as const;

interface MeshObject {
  readonly name: string;
  readonly geometry: BufferGeometry;
  readonly materials: readonly (Material | null)[];
}

function objectsOf(file: GivenFile, find: (name: string) => GivenFile | null, paints: Paints): MeshObject[] {
  const base = file.name.replace(/^.*[\\/]|\.[^.]*$/g, '');
  const ending = endingOf(file.name);
  const buffer = file.bytes.slice().buffer;
  if (ending === '.obj') {
    const text = textOf(file.bytes);
    for (const name of namedIn(file)) paints.read(find(name));
    return new OBJLoader().parse(text).children.flatMap((object): MeshObject[] => {
      const mesh = object as Mesh<BufferGeometry, MeshPhongMaterial | MeshPhongMaterial[]>;
      if (!mesh.isMesh || !(mesh.geometry.getAttribute('position')?.count > 2)) return [];
      const materials = [mesh.material].flat().map(({ name }) => paints.named(name));
      return [{ name: mesh.name || base, geometry: mesh.geometry, materials }];
    });
  }
  const geometry = ending === '.stl' ? new STLLoader().parse(buffer) : new PLYLoader().parse(buffer);
  const faces = ending === '.stl' || geometry.index !== null;
  if (!faces || !(geometry.getAttribute('position')?.count > 2)) return [];
  return [{ name: base, geometry, materials: [] }];
}

function piecesOf(geometry: BufferGeometry): { start: number; count: number; of: number }[] {
  const all = geometry.index?.count ?? geometry.getAttribute('position').count;
  if (geometry.groups.length === 0) return [{ start: 0, count: all, of: 0 }];
  return geometry.groups
    .filter(({ count }) => count > 0)
    .map(({ start, count, materialIndex }) => ({ start, count, of: materialIndex ?? 0 }));
}

/** Materials by the names that an OBJ calls them. */
class Paints {
  private readonly told = new Map<string, Told>();
  private readonly made = new Map<string, Material>();

  constructor(
    private readonly document: Document,
    private readonly find: (name: string) => GivenFile | null,
  ) {}

  /** Takes in a file of materials; none where it is not there. */
  read(file: GivenFile | null): void {
    if (file === null) return;
    const { materialsInfo } = new MTLLoader().parse(textOf(file.bytes), '');
    for (const [name, told] of Object.entries(materialsInfo)) this.told.set(name, told);
  }

  named(name: string): Material | null {
    const told = this.told.get(name);
    if (told === undefined) return null;
    const known = this.made.get(name);
    if (known) return known;
    const material = this.document.createMaterial(name).setMetallicFactor(0);
    const [r, g, b] = colourOf(told.kd) ?? [0.8, 0.8, 0.8];
    const alpha = told.d !== undefined ? Number(told.d) : told.tr !== undefined ? 1 - Number(told.tr) : 1;
    material.setBaseColorFactor([r, g, b, Number.isFinite(alpha) ? alpha : 1]);
    if (alpha < 1) material.setAlphaMode('BLEND');
    // A shine of exponent n is about as wide as that of this roughness.
    const shine = Number(told.ns ?? 0);
    material.setRoughnessFactor(Math.min(1, Math.sqrt(Math.sqrt(2 / (Math.max(0, shine) + 2)))));
    const glow = colourOf(told.ke);
    if (glow) material.setEmissiveFactor(glow);
    this.addPicture(material, told.map_kd as string | undefined);
    this.made.set(name, material);
    return material;
  }

  private addPicture(material: Material, told: string | undefined): void {
    const file = told ? this.find(pictureName(told)) : null;
    const kind = file && PICTURES[endingOf(file.name)];
    if (!file || !kind) return;
    const texture = this.document.createTexture(file.name.replace(/^.*[\\/]/, ''));
    material.setBaseColorTexture(texture.setImage(file.bytes as Uint8Array<ArrayBuffer>).setMimeType(kind));
    const [, , , alpha] = material.getBaseColorFactor();
    // A texture is the colour; a plain colour applies without one.
    material.setBaseColorFactor([1, 1, 1, alpha]);
  }
}

const PICTURES: Readonly<Record<string, string>> = {
  '.png': 'image/png',
  '.jpg': 'image/jpeg',
  '.jpeg': 'image/jpeg',
};

function colourOf(value: unknown): [number, number, number] | null {
  const numbers = Array.isArray(value) ? value.map(Number) : [];
  if (numbers.length < 3 || !numbers.every(Number.isFinite)) return null;
  const colour = new Color().setRGB(numbers[0], numbers[1], numbers[2], 'srgb');
  return [colour.r, colour.g, colour.b];
}
