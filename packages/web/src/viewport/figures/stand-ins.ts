import * as THREE from 'three';

/** Figures of riders without a model. They share shapes and materials, so that many are drawn in one call. */
export class StandIns {
  private body: THREE.BufferGeometry | undefined;
  private camera: readonly [THREE.BufferGeometry, THREE.BufferGeometry] | undefined;
  private readonly paints = new Map<string, THREE.Material>();

  /** A carriage with a nose, 1 m long, on the ground. */
  carriage(color: string): THREE.Object3D {
    this.body ??= carriageShape();
    return new THREE.Mesh(this.body, this.paint(color, THREE.FrontSide));
  }

  /** A camera: a case whose hood opens towards its nose. */
  cameraCase(color: string): THREE.Object3D {
    this.camera ??= cameraShapes();
    const material = this.paint(color, THREE.DoubleSide);
    const group = new THREE.Group();
    group.add(...this.camera.map((shape) => new THREE.Mesh(shape, material)));
    return group;
  }

  private paint(color: string, side: THREE.Side): THREE.Material {
    const key = `${color} ${side}`;
    const known = this.paints.get(key) ?? new THREE.MeshStandardMaterial({ color, roughness: 0.8, side });
    this.paints.set(key, known);
    return known;
  }
}

function carriageShape(): THREE.BufferGeometry {
  const outline = new THREE.Shape([
    new THREE.Vector2(-0.35, -0.5),
    new THREE.Vector2(0.35, -0.5),
    new THREE.Vector2(0.35, 0.15),
    new THREE.Vector2(0, 0.6),
    new THREE.Vector2(-0.35, 0.15),
  ]);
  const geometry = new THREE.ExtrudeGeometry(outline, { depth: 0.25, bevelEnabled: false });
  geometry.rotateX(-Math.PI / 2);
  geometry.rotateY(Math.PI);
  return geometry;
}

function cameraShapes(): readonly [THREE.BufferGeometry, THREE.BufferGeometry] {
  const hood = new THREE.CylinderGeometry(0.28, 0.1, 0.3, 4, 1, true, Math.PI / 4);
  hood.rotateX(Math.PI / 2);
  hood.translate(0, 0, 0.15);
  const body = new THREE.BoxGeometry(0.3, 0.34, 0.5);
  body.translate(0, 0, -0.25);
  return [hood, body];
}
