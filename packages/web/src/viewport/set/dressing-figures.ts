import {
  PIECE,
  bendAlong,
  groundItself,
  placedDressings,
  dressingModels,
  type GroundMesh,
  type DressingPieces,
  type PlacedDressing,
  type Shot,
} from '@fleet-rail/core';
import * as THREE from 'three';
import { groundOf } from '../../workers/scene-assets/ground-height';
import type { SetModels } from './set-models';

/** One dressing as it is drawn. */
interface Drawn {
  readonly group: THREE.Group;
  /** Inputs it was made from. */
  readonly thing: PlacedDressing;
  readonly models: string;
}

/** Dressing of a shot's paths: pieces as instances of their models, one mesh a profile. */
export class DressingFigures {
  readonly object = new THREE.Group();
  private readonly drawn = new Map<string, Drawn>();
  private shown: readonly unknown[] = [];
  /** Counts what came and went. */
  changes = 0;
  private readonly boxed = new THREE.Box3();
  private boxedAt = -1;

  constructor(private readonly models: SetModels) {}

  /** Updates the drawing to a shot, on the ground of its pieces. */
  show(shot: Shot, ground: GroundMesh | null): void {
    const { dressing, paths, models } = shot;
    const inputs = [dressing, paths, models, ground, this.models.count];
    if (inputs.every((input, i) => input === this.shown[i])) return;
    this.shown = inputs;
    if (dressing.length === 0 && this.drawn.size === 0) return;
    const things = placedDressings(shot, groundItself(ground && groundOf(ground)));
    const ids = new Set(things.map((thing) => thing.laid.id));
    for (const [id, old] of this.drawn) if (!ids.has(id)) this.drop(id, old);
    for (const thing of things) this.showThing(thing, shot);
  }

  /** The box around all of it, made anew when something comes or goes. */
  box(): THREE.Box3 {
    if (this.boxedAt !== this.changes) this.boxed.setFromObject(this.object);
    this.boxedAt = this.changes;
    return this.boxed;
  }

  dispose(): void {
    for (const [id, old] of this.drawn) this.drop(id, old);
  }

  private showThing(thing: PlacedDressing, shot: Shot): void {
    const { laid } = thing;
    const worn = dressingModels(laid).map((id) => {
      const asset = shot.models.find((model) => model.id === id)?.source.asset;
      return asset === undefined ? null : this.models.of(asset);
    });
    const models = worn.map((meshes) => meshes?.[0]?.uuid ?? '').join();
    const old = this.drawn.get(laid.id);
    if (old && old.models === models && same(old.thing, thing)) return;
    if (old) this.drop(laid.id, old);
    const group = new THREE.Group();
    group.name = laid.name;
    if (thing.swept) group.add(sweptMesh(thing));
    if (thing.pieces)
      worn.forEach(
        (model, k) => model && group.add(...piecesOf(thing, thing.pieces as DressingPieces, model, k)),
      );
    this.object.add(group);
    this.drawn.set(laid.id, { group, thing, models });
    this.changes++;
  }

  private drop(id: string, { group }: Drawn): void {
    this.object.remove(group);
    group.traverse((part) => {
      if (!(part instanceof THREE.Mesh)) return;
      // Instances share the geometry and the material of their model.
      if (part instanceof THREE.InstancedMesh) part.dispose();
      else part.geometry.dispose();
    });
    this.drawn.delete(id);
    this.changes++;
  }
}

function same(a: PlacedDressing, b: PlacedDressing): boolean {
  if (a.laid !== b.laid || a.path !== b.path || a.swept !== b.swept) return false;
  const [p, q] = [a.pieces?.places, b.pieces?.places];
  return p?.length === q?.length && (p?.every((value, i) => value === q?.[i]) ?? true);
}

function sweptMesh({ laid, swept }: PlacedDressing): THREE.Mesh {
  const geometry = new THREE.BufferGeometry();
  if (swept) {
    geometry.setAttribute('position', new THREE.BufferAttribute(Float32Array.from(swept.positions), 3));
    geometry.setAttribute('normal', new THREE.BufferAttribute(swept.normals, 3));
    geometry.setAttribute('uv', new THREE.BufferAttribute(swept.uvs, 2));
    geometry.setIndex(new THREE.BufferAttribute(swept.indices, 1));
  }
  const material = new THREE.MeshStandardMaterial({
    color: laid.color,
    roughness: 0.9,
    side: laid.ring ? THREE.FrontSide : THREE.DoubleSide,
  });
  return shadowed(new THREE.Mesh(geometry, material));
}

function piecesOf(
  thing: PlacedDressing,
  pieces: DressingPieces,
  meshes: readonly THREE.Mesh[],
  which: number,
): THREE.Object3D[] {
  const own = [...pieces.models.keys()].filter((i) => pieces.models[i] === which);
  if (own.length === 0) return [];
  return meshes.map((mesh) =>
    thing.laid.bend ? bentMesh(thing, pieces, own, mesh) : instancesOf(pieces, own, mesh),
  );
}

function instancesOf({ places }: DressingPieces, own: readonly number[], mesh: THREE.Mesh): THREE.Object3D {
  const all = new THREE.InstancedMesh(mesh.geometry, mesh.material, own.length);
  const [place, turn, size, matrix] = [
    new THREE.Vector3(),
    new THREE.Quaternion(),
    new THREE.Vector3(),
    new THREE.Matrix4(),
  ];
  own.forEach((i, k) => {
    const at = PIECE.numbers * i;
    place.fromArray(places, at);
    turn.fromArray(places, at + PIECE.rotation);
    size.setScalar(places[at + PIECE.size]);
    all.setMatrixAt(k, matrix.compose(place, turn, size).multiply(mesh.matrixWorld));
  });
  all.computeBoundingSphere();
  return shadowed(all);
}

/** Pieces that follow the curve, as one mesh. */
function bentMesh(
  { laid, path }: PlacedDressing,
  { places, sides }: DressingPieces,
  own: readonly number[],
  mesh: THREE.Mesh,
): THREE.Object3D {
  const straight = mesh.geometry.clone().applyMatrix4(mesh.matrixWorld);
  const positions = straight.getAttribute('position');
  const normals = straight.getAttribute('normal');
  const count = positions.count;
  const list = straight.index ? [...straight.index.array] : [...Array(count).keys()];
  const all = new Float32Array(3 * count * own.length);
  const ways = normals ? new Float32Array(3 * count * own.length) : null;
  const uv = straight.getAttribute('uv');
  const uvs = uv ? new Float32Array(2 * count * own.length) : null;
  const indices = new Uint32Array(list.length * own.length);
  own.forEach((i, k) => {
    const at = 3 * count * k;
    const [own, turned] = [all.subarray(at, at + 3 * count), ways?.subarray(at, at + 3 * count) ?? null];
    own.set(positions.array);
    turned?.set(normals.array);
    uvs?.set(uv.array, 2 * count * k);
    const piece = PIECE.numbers * i;
    const bent = {
      distance: places[piece + PIECE.distance],
      side: sides[i],
      size: places[piece + PIECE.size],
    };
    bendAlong(laid, path, bent, own, turned);
    for (let n = 0; n < list.length; n++) indices[k * list.length + n] = list[n] + count * k;
  });
  straight.dispose();
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.BufferAttribute(all, 3));
  if (ways) geometry.setAttribute('normal', new THREE.BufferAttribute(ways, 3));
  else geometry.computeVertexNormals();
  if (uvs) geometry.setAttribute('uv', new THREE.BufferAttribute(uvs, 2));
  geometry.setIndex(new THREE.BufferAttribute(indices, 1));
  return shadowed(new THREE.Mesh(geometry, mesh.material));
}

function shadowed<T extends THREE.Mesh>(mesh: T): T {
  mesh.castShadow = mesh.receiveShadow = true;
  return mesh;
}
