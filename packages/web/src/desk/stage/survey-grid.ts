import * as THREE from 'three';
import type { Theme } from '../../theme/theme';

const FINE_REACH = 60;
const COARSE_REACH = 400;

/** The pale ground with its survey grid: a line every metre near the middle, every ten metres beyond. */
export class SurveyGrid {
  readonly object = new THREE.Group();
  private readonly ground: THREE.Mesh<THREE.PlaneGeometry, THREE.MeshBasicMaterial>;
  private readonly fine = lines(FINE_REACH, 1);
  private readonly coarse = lines(COARSE_REACH, 10);

  constructor() {
    const plane = new THREE.PlaneGeometry(20_000, 20_000);
    this.ground = new THREE.Mesh(plane, new THREE.MeshBasicMaterial());
    this.ground.rotation.x = -Math.PI / 2;
    this.ground.position.y = -0.12;
    this.fine.position.y = -0.1;
    this.coarse.position.y = -0.09;
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

  /** Seen edge-on the ground is a line; its plane would hide what lies under it. */
  setEdgeOn(edgeOn: boolean): void {
    this.ground.visible = !edgeOn;
    this.fine.position.y = this.coarse.position.y = edgeOn ? 0 : -0.1;
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

function lines(reach: number, spacing: number): THREE.LineSegments<THREE.BufferGeometry, THREE.LineBasicMaterial> {
  const places: number[] = [];
  for (let at = -reach; at <= reach; at += spacing) {
    places.push(-reach, 0, at, reach, 0, at, at, 0, -reach, at, 0, reach);
  }
  const geometry = new THREE.BufferGeometry();
  geometry.setAttribute('position', new THREE.Float32BufferAttribute(places, 3));
  return new THREE.LineSegments(geometry, new THREE.LineBasicMaterial());
}
