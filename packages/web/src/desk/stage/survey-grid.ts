import * as THREE from 'three';
import type { Theme } from '../../theme/theme';

const FINE_REACH = 60;
const COARSE_REACH = 400;
const PIECE = 20;

/** The pale ground with its survey grid: a line every metre near the middle, every ten metres beyond. */
export class SurveyGrid {
  readonly object = new THREE.Group();
  private readonly ground: THREE.Mesh<THREE.PlaneGeometry, THREE.MeshBasicMaterial>;
  private readonly fine = lines(FINE_REACH, 1);
  private readonly coarse = lines(COARSE_REACH, 10);

  constructor() {
    // Drawn first and without depth: it lies behind everything, and what is sunk into it stays seen.
    const material = new THREE.MeshBasicMaterial({ depthTest: false, depthWrite: false });
    this.ground = new THREE.Mesh(new THREE.PlaneGeometry(4_000, 4_000), material);
    this.ground.rotation.x = -Math.PI / 2;
    this.ground.renderOrder = -10;
    this.object.add(this.ground, this.fine, this.coarse);
  }

  paint(theme: Theme): void {
    this.ground.material.color.set(theme.stageGround);
    this.fine.material.color.set(theme.gridFine);
    this.coarse.material.color.set(theme.gridCoarse);
  }

  /** Keeps the fine lines where they can be told apart. */
  showFine(visible: boolean): void {
    this.fine.visible = visible;
  }

  /** Seen edge-on the ground is a line; its plane is left out. */
  setEdgeOn(edgeOn: boolean): void {
    this.ground.visible = !edgeOn;
  }

  dispose(): void {
    this.ground.geometry.dispose();
    this.ground.material.dispose();
    for (const part of [this.fine, this.coarse]) {
      part.geometry.dispose();
      part.material.dispose();
    }
  }
}

function lines(
  reach: number,
  spacing: number,
): THREE.LineSegments<THREE.BufferGeometry, THREE.LineBasicMaterial> {
  const places: number[] = [];
  // In pieces: some rasterisers drop a line that runs from before the viewer to behind.
  for (let at = -reach; at <= reach; at += spacing) {
    for (let from = -reach; from < reach; from += PIECE) {
      const to = from + PIECE;
      places.push(from, 0, at, to, 0, at, at, 0, from, at, 0, to);
    }
  }
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.Float32BufferAttribute(places, 3));
  // Transparent, so that it is drawn over a ground model that lies as low.
  return new THREE.LineSegments(
    geometry,
    new THREE.LineBasicMaterial({ transparent: true, depthWrite: false }),
  );
}
