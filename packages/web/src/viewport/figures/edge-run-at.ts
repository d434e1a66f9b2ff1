import { followEdge, meshEdges, type MeshEdges, type Vec3 } from '@fleet-rail/core';
import * as THREE from 'three';
import type { EdgePick } from '../../state/desk-store';

const cached = new WeakMap<THREE.BufferGeometry, MeshEdges>();

/** The run of mesh edges nearest to where a ray met a model, in the world. */
export function edgeRunAt({ object, face, point }: THREE.Intersection): EdgePick | null {
  if (!face || !(object instanceof THREE.Mesh)) return null;
  const geometry = object.geometry as THREE.BufferGeometry;
  const vertices = geometry.getAttribute('position');
  const corners = [face.a, face.b, face.c];
  const inWorld = (place: Vec3) => new THREE.Vector3(...place).applyMatrix4(object.matrixWorld);
  const places = corners.map((i) => inWorld([vertices.getX(i), vertices.getY(i), vertices.getZ(i)]));
  const sides = [0, 1, 2].map((k) => {
    const next = (k + 1) % 3;
    const nearest = new THREE.Line3(places[k], places[next]).closestPointToPoint(
      point,
      true,
      new THREE.Vector3(),
    );
    return { ends: [corners[k], corners[next]] as const, gap: nearest.distanceTo(point) };
  });
  const edges = cached.get(geometry) ?? edgesOf(geometry);
  cached.set(geometry, edges);
  // The nearest side that is no mere diagonal of a flat face.
  for (const { ends } of sides.sort((a, b) => a.gap - b.gap)) {
    const run = followEdge(edges, ends[0], ends[1]);
    if (run !== null)
      return { places: run.places.map((place) => inWorld(place).toArray()), closed: run.closed };
  }
  return null;
}

function edgesOf(geometry: THREE.BufferGeometry): MeshEdges {
  const vertices = geometry.getAttribute('position');
  const positions = Array.from({ length: vertices.count }, (_, i) => [
    vertices.getX(i),
    vertices.getY(i),
    vertices.getZ(i),
  ]).flat();
  return meshEdges(
    positions,
    geometry.getIndex()?.array ?? Uint32Array.from({ length: vertices.count }, (_, i) => i),
  );
}
