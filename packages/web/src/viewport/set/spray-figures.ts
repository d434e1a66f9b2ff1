import {
  PARTICLE,
  aliveAt,
  particleAt,
  sourceFrame,
  type Rider,
  type Shot,
  type Spray,
} from '@fleet-rail/core';
import * as THREE from 'three';
import type { Evaluation } from '../../workers/evaluation/evaluation';
import type { Theme } from '../../ui/theme/theme';
import { ORDER } from '../drawing/draw-order';
import type { SetModels } from './set-models';

/** Most particles of a rider drawn together, with a graphics card and in pictures, and without. */
const MOST = 20_000;
const MOST_IN_SOFTWARE = 300;
/** By day thin particles lose contrast; by night all are dimmer. */
const [OPACITY, NIGHT] = [0.6, 0.35];

interface Drawn {
  /** One a mesh of the model; one of what is flat. */
  readonly meshes: readonly THREE.InstancedMesh[];
  readonly built: string;
}

/** Particles of riders, as instances that face the eye or show a model. */
export class SprayFigures {
  readonly object = new THREE.Group();
  private readonly drawn = new Map<string, Drawn>();
  private night = false;
  private readonly now = new Float64Array(PARTICLE.numbers);

  /** @param sparse whether there is no graphics card */
  constructor(
    private readonly models: SetModels,
    private readonly sparse: boolean,
  ) {}

  paint({ mode }: Theme): void {
    this.night = mode === 'night';
    for (const { meshes } of this.drawn.values()) for (const mesh of meshes) dim(mesh, this.night);
  }

  /** Shows what is sprayed at a frame. */
  pose(shot: Shot, evaluation: Evaluation, frame: number): void {
    const seconds = (sourceFrame(shot, frame) - shot.range.first) / shot.fps;
    const sprayed = new Set<string>();
    for (const rider of shot.riders) {
      const spray = evaluation.riders.get(rider.id)?.spray;
      if (!spray || !rider.emitter) continue;
      sprayed.add(rider.id);
      this.poseRider(shot, rider, spray, seconds);
    }
    for (const [id, old] of this.drawn) if (!sprayed.has(id)) this.drop(id, old);
  }

  /** Turns flat particles to the camera. */
  face(camera: THREE.Camera): void {
    const turn = camera.getWorldQuaternion(new THREE.Quaternion());
    const [place, size, matrix] = [new THREE.Vector3(), new THREE.Vector3(), new THREE.Matrix4()];
    for (const mesh of [...this.drawn.values()].flatMap(({ meshes }) => meshes)) {
      if (mesh.userData.flat !== true) continue;
      for (let i = 0; i < mesh.count; i++) {
        mesh.getMatrixAt(i, matrix);
        place.setFromMatrixPosition(matrix);
        size.setFromMatrixScale(matrix);
        mesh.setMatrixAt(i, matrix.compose(place, turn, size));
      }
      mesh.instanceMatrix.needsUpdate = true;
    }
  }

  dispose(): void {
    for (const [id, old] of this.drawn) this.drop(id, old);
  }

  private poseRider(shot: Shot, rider: Rider, spray: Spray, seconds: number): void {
    const { emitter } = rider;
    if (emitter === null) return;
    const alive = aliveAt(spray, seconds);
    const every = Math.ceil(alive.length / (this.sparse ? MOST_IN_SOFTWARE : MOST));
    const shown = every > 1 ? alive.filter(({ n }) => n % every === 0) : alive;
    const meshes = this.meshesOf(shot, rider, shown.length);
    const [begin, end] = [new THREE.Color(emitter.color), new THREE.Color(emitter.fade ?? emitter.color)];
    const [place, turn, size, matrix, color] = [
      new THREE.Vector3(),
      new THREE.Quaternion(),
      new THREE.Vector3(),
      new THREE.Matrix4(),
      new THREE.Color(),
    ];
    const placed = new THREE.Matrix4();
    shown.forEach(({ n, age }, i) => {
      particleAt(spray, n, age, this.now);
      place.fromArray(this.now);
      turn.fromArray(this.now, PARTICLE.rotation);
      matrix.compose(place, turn, size.setScalar(Math.max(1e-6, this.now[PARTICLE.size])));
      for (const mesh of meshes) {
        const own = mesh.userData.own as THREE.Matrix4 | undefined;
        mesh.setMatrixAt(i, own ? placed.multiplyMatrices(matrix, own) : matrix);
        if (!own) mesh.setColorAt(i, color.lerpColors(begin, end, this.now[PARTICLE.part]));
      }
    });
    for (const mesh of meshes) {
      mesh.count = shown.length;
      mesh.instanceMatrix.needsUpdate = true;
      if (mesh.instanceColor) mesh.instanceColor.needsUpdate = true;
    }
  }

  /** Instances of a rider's particles, at least a number of them; none until their model is loaded. */
  private meshesOf(shot: Shot, { id, emitter }: Rider, count: number): readonly THREE.InstancedMesh[] {
    const asset = shot.models.find((model) => model.id === emitter?.model)?.source.asset;
    const model = asset === undefined ? undefined : this.models.of(asset);
    if (model === null) return [];
    const built = `${emitter?.look} ${asset}`;
    const old = this.drawn.get(id);
    if (old && old.built === built && (old.meshes[0]?.instanceMatrix.count ?? 0) >= count) return old.meshes;
    if (old) this.drop(id, old);
    const room = 2 ** Math.ceil(Math.log2(Math.max(16, count)));
    const meshes = model
      ? model.map(({ geometry, material, matrixWorld }) => {
          const mesh = new THREE.InstancedMesh(geometry, material, room);
          mesh.userData = { own: matrixWorld };
          return mesh;
        })
      : [flatMesh(emitter?.look === 'points', room)];
    for (const mesh of meshes) {
      // Instances move with each frame.
      mesh.frustumCulled = false;
      dim(mesh, this.night);
      this.object.add(mesh);
    }
    this.drawn.set(id, { meshes, built });
    return meshes;
  }

  private drop(id: string, { meshes }: Drawn): void {
    for (const mesh of meshes) {
      this.object.remove(mesh);
      mesh.dispose();
      // Particles with a model share its geometry and material.
      if (mesh.userData.flat !== true) continue;
      mesh.geometry.dispose();
      (mesh.material as THREE.Material).dispose();
    }
    this.drawn.delete(id);
  }
}

function flatMesh(round: boolean, room: number): THREE.InstancedMesh {
  const mesh = new THREE.InstancedMesh(flat(round), thin(), room);
  mesh.userData = { flat: true };
  mesh.renderOrder = ORDER.spray;
  return mesh;
}

const flat = (round: boolean) => (round ? new THREE.CircleGeometry(0.5, 8) : new THREE.PlaneGeometry(1, 1));

const thin = () =>
  new THREE.MeshBasicMaterial({ transparent: true, opacity: OPACITY, depthWrite: false, fog: true });

function dim(mesh: THREE.InstancedMesh, night: boolean): void {
  if (mesh.userData.flat === true)
    (mesh.material as THREE.MeshBasicMaterial).color.setScalar(night ? NIGHT : 1);
}
