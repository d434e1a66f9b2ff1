import { POSE, type Axis, type Rider, type Shot, type Vec3 } from '@fleet-rail/core';
import * as THREE from 'three';
import { sentenceOf } from '../../api/request';
import { lineColor } from '../../theme/theme';
import { notify } from '../../ui/notices';
import type { EdgePick } from '../desk-store';
import { edgeRunAt } from './edge-run-at';
import { ModelLibrary, makeGhost, noseArrow, standIn } from './model-library';

interface Figure {
  readonly group: THREE.Group;
  /** What it was made from: another model or colour makes it anew. */
  readonly made: string;
}

/** The models of the riders, the ground, and the ghost of a landing, on the stage. */
export class RiderFigures {
  readonly object = new THREE.Group();
  private readonly models = new ModelLibrary();
  private readonly figures = new Map<string, Figure>();
  private ground: Figure | null = null;
  private ghost: Figure | null = null;
  private told = new Set<string>();

  constructor(private readonly redraw: () => void) {}

  /** Brings the figures up to the shot's riders and ground. */
  show(shot: Shot): void {
    const wanted = new Set(shot.riders.map((rider) => rider.id));
    for (const [id, figure] of this.figures) {
      if (wanted.has(id)) continue;
      this.object.remove(figure.group);
      this.figures.delete(id);
    }
    for (const rider of shot.riders) {
      const current = this.figures.get(rider.id);
      const next = this.figure(current ?? null, rider.model, shot, lineColor(rider.color));
      next.group.scale.set(...rider.rest.scale);
      this.figures.set(rider.id, next);
    }
    this.ground =
      shot.ground.model === null
        ? this.drop(this.ground)
        : this.figure(this.ground, shot.ground.model, shot, '#888888');
  }

  /** Puts a rider at a pose: POSE.size numbers. */
  place(id: string, pose: Float64Array): void {
    const group = this.figures.get(id)?.group;
    if (group) setPose(group, pose);
  }

  /** Shows or hides the ghost of a rider where it would land. */
  showGhost(shot: Shot, rider: Rider | null, pose: Float64Array | null): void {
    if (rider === null || pose === null) {
      this.ghost = this.drop(this.ghost);
      return;
    }
    this.ghost = this.figure(
      this.ghost,
      rider.model,
      shot,
      lineColor(rider.color),
      rider.hitch?.facing.forward ?? '+z',
    );
    this.ghost.group.scale.set(...rider.rest.scale);
    setPose(this.ghost.group, pose);
  }

  /** The rider a ray meets first. */
  pick(ray: THREE.Raycaster): string | null {
    let nearest: { id: string; distance: number } | null = null;
    for (const [id, { group }] of this.figures) {
      const hit = ray.intersectObject(group, true)[0];
      if (hit && (nearest === null || hit.distance < nearest.distance))
        nearest = { id, distance: hit.distance };
    }
    return nearest?.id ?? null;
  }

  /** Where a ray first meets the ground model. */
  onGround(ray: THREE.Raycaster): Vec3 | null {
    const hit = this.ground && ray.intersectObject(this.ground.group, true)[0];
    return hit ? hit.point.toArray() : null;
  }

  /** The run of edges that the edge nearest to where a ray meets a model belongs to, in the world. */
  pickEdges(ray: THREE.Raycaster): EdgePick | null {
    const groups = [...this.figures.values(), ...(this.ground ? [this.ground] : [])].map(
      ({ group }) => group,
    );
    const hit = ray.intersectObjects(groups, true).find(({ object }) => object instanceof THREE.Mesh);
    return hit ? edgeRunAt(hit) : null;
  }

  private drop(figure: Figure | null): null {
    if (figure) this.object.remove(figure.group);
    return null;
  }

  private figure(
    current: Figure | null,
    modelId: string | null,
    shot: Shot,
    color: string,
    ghostFacing: Axis | null = null,
  ): Figure {
    const source = shot.models.find((model) => model.id === modelId)?.source;
    const made = `${source?.asset ?? source?.file ?? ''} ${color} ${ghostFacing}`;
    if (current?.made === made) return current;
    this.drop(current);
    const group = new THREE.Group();
    this.object.add(group);
    const add = (object: THREE.Object3D) => {
      if (ghostFacing !== null) {
        makeGhost(object, color);
        group.add(noseArrow(object, ghostFacing, color));
      }
      group.add(object);
      this.redraw();
    };
    if (source?.asset === undefined) add(standIn(color));
    else {
      this.models.copyOf(source.asset).then(add, (error: unknown) => {
        add(standIn(color));
        this.tellOnce(`A model could not be shown, a stand-in rides instead: ${sentenceOf(error)}`);
      });
    }
    return { group, made };
  }

  private tellOnce(text: string): void {
    if (this.told.has(text)) return;
    this.told.add(text);
    notify('error', text);
  }
}

function setPose(group: THREE.Object3D, pose: Float64Array): void {
  const [x, y, z, qx, qy, qz, qw] = pose.subarray(0, POSE.distance);
  group.position.set(x, y, z);
  group.quaternion.set(qx, qy, qz, qw);
}
