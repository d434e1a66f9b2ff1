import { POSE, axesOf, type Axis, type Rider, type Shot, type Vec3 } from '@fleet-rail/core';
import * as THREE from 'three';
import { sentenceOf } from '../../api/request';
import type { Evaluation } from '../../workers/evaluation/evaluation';
import { poseAt } from '../../workers/evaluation/pose-at';
import { lineColor } from '../../ui/theme/theme';
import type { EdgePick } from '../../state/desk-store';
import { edgeRunAt } from './edge-run-at';
import { FigureCopies, seeCopies } from './figure-copies';
import type { Ghost } from './ghosts';
import { isJoint, nameOf, poseParts } from './pose-parts';
import { makeGhost, ModelLibrary, noseArrow } from './model-library';
import { Fading } from '../set/fading';
import { KnownSoles, contactPatchesOf, type Soles } from '../set/contact-patches';
import type { ContactPatch } from '../set/contact-shadows';
import { StandIns } from './stand-ins';

/** A part of a rider's model, and where it is in the rider's own space; null for the rider as such. */
export interface RiderPart {
  readonly rider: string;
  readonly node: string | null;
  readonly at: Vec3;
}

/** Part of the ground model, from side to side, from which on a node counts as ground and not as something on it. */
const WIDE = 0.4;
/** Nearer than this to an eye nothing is seen of but its inside, metres. */
const AROUND = 0.5;

interface Figure {
  readonly group: THREE.Group;
  /** Inputs it was made from: another model or colour makes a new one. */
  readonly built: string;
}

/** The models of the riders, the ground, and ghosts, on the stage. */
export class RiderFigures {
  readonly object = new THREE.Group();
  readonly models = new ModelLibrary();
  private readonly standIns = new StandIns();
  private readonly figures = new Map<string, Figure>();
  private readonly copies = new FigureCopies();
  private ground: Figure | null = null;
  private readonly ghosts: Figure[] = [];
  private readonly unseen = new Set<string>();
  private readonly now = new Float64Array(POSE.size);
  private reported = new Set<string>();
  private readonly soles = new KnownSoles();
  private readonly fading = new Fading();
  private riders: ReadonlyMap<string, Rider> = new Map();
  /** Counts the models that came and went. */
  changes = 0;
  private readonly coming = new Set<Promise<void>>();

  constructor(
    private readonly redraw: () => void,
    private readonly tell: (problem: string) => void,
  ) {
    this.object.add(this.copies.object);
  }

  /** Brings the figures up to the shot's riders and ground. */
  show(shot: Shot): void {
    this.riders = new Map(shot.riders.map((rider) => [rider.id, rider]));
    for (const [id, figure] of this.figures) {
      if (this.riders.has(id)) continue;
      this.drop(figure);
      this.figures.delete(id);
    }
    for (const rider of shot.riders) {
      const current = this.figures.get(rider.id);
      const next = this.figure(current ?? null, rider, shot, lineColor(rider.color));
      const scale = rider.rest.scale;
      // One that is turned inside out by its size is no copy of the others.
      if (next.group.scale.toArray().some((size, k) => Math.sign(size) !== Math.sign(scale[k])))
        this.copies.invalidate();
      next.group.scale.set(...scale);
      this.figures.set(rider.id, next);
    }
    this.ground =
      shot.ground.model === null
        ? this.drop(this.ground)
        : this.figure(this.ground, { model: shot.ground.model, camera: null }, shot, '#888888');
  }

  /** Settles when the models of all figures have come. */
  async whole(): Promise<void> {
    while (this.coming.size > 0) await Promise.all(this.coming);
  }

  /** The group of a rider's figure; null where there is none. */
  groupOf(id: string): THREE.Group | null {
    return this.figures.get(id)?.group ?? null;
  }

  /** The box around all that is seen, and around the model of the ground. */
  box(): THREE.Box3 {
    const box = this.groundBox()?.clone() ?? new THREE.Box3();
    for (const [id, { group }] of this.figures) {
      const { body } = this.solesOf(id, group);
      if (group.visible && !body.isEmpty()) box.union(body.clone().applyMatrix4(group.matrixWorld));
    }
    return box;
  }

  /** The box around the model of the ground; null where there is none. */
  groundBox(): THREE.Box3 | null {
    if (this.ground === null) return null;
    const { body } = this.solesOf('', this.ground.group);
    return body.isEmpty() ? null : body;
  }

  /** Contact patches of visible figures, and of their wheels and feet. */
  standing(): ContactPatch[] {
    return [...this.figures].flatMap(([id, { group }]) =>
      group.visible ? contactPatchesOf(group, this.solesOf(id, group)) : [],
    );
  }

  private solesOf(id: string, group: THREE.Group): Soles {
    return this.soles.of(id, group, this.riders.get(id) ?? null);
  }

  /** To be called before a picture is drawn: what figures have in common is drawn in one go. */
  drawCopies(): void {
    this.object.updateMatrixWorld();
    const figures = [...this.figures.values(), ...(this.ground ? [this.ground] : [])];
    this.copies.update(figures.map(({ group }) => group));
  }

  dispose(): void {
    this.copies.dispose();
  }

  /**
   * Puts riders where they are at a frame, and the parts of their models where they have moved to; those that moved before and do not
   * now go back. What a cue hides is left out from the next picture on.
   */
  pose(evaluation: Evaluation, frame: number): void {
    const sample = (frame - evaluation.first) / evaluation.step;
    for (const rider of evaluation.riders.values()) {
      const group = this.figures.get(rider.id)?.group;
      if (!group) continue;
      poseAt(evaluation, rider, frame, this.now);
      setPose(group, this.now);
      poseParts(group, rider.parts, sample);
      const at = rider.shown && Math.min(rider.shown.length - 1, Math.max(0, Math.floor(sample + 1e-9)));
      if (at !== null && rider.shown?.[at] === 0) this.unseen.add(rider.id);
      else this.unseen.delete(rider.id);
    }
  }

  /** Shows these ghosts and no others. */
  showGhosts(shot: Shot, ghosts: readonly Ghost[]): void {
    this.ghosts.splice(ghosts.length).forEach((figure) => this.drop(figure));
    ghosts.forEach(({ rider, pose, pointed }, i) => {
      const facing = pointed ? axesOf(rider).forward : 'none';
      const figure = this.figure(this.ghosts[i] ?? null, rider, shot, lineColor(rider.color), facing);
      this.ghosts[i] = figure;
      figure.group.scale.set(...rider.rest.scale);
      setPose(figure.group, pose);
    });
  }

  /** Matrix of a posed node of a rider's model, in the rider's own space or in the scene; null without that node. */
  partPlace(id: string, name: string, inScene = false): Vec3 | null {
    const group = this.figures.get(id)?.group;
    let found: THREE.Object3D | null = null;
    group?.traverse((node) => {
      if (found === null && node !== group && nameOf(node) === name) found = node;
    });
    if (group === undefined || found === null) return null;
    group.updateMatrixWorld(true);
    const place = (found as THREE.Object3D).getWorldPosition(new THREE.Vector3());
    return (inScene ? place : group.worldToLocal(place)).toArray();
  }

  /** Whether a rider's model, or its stand-in, is loaded. */
  hasCome(id: string): boolean {
    return (this.groupOf(id)?.children.length ?? 0) > 0;
  }

  /** Box around a rider's figure in its rest pose; null if there is none. */
  boxOf(id: string): THREE.Box3 | null {
    const group = this.figures.get(id)?.group;
    if (group === undefined) return null;
    group.updateMatrixWorld(true);
    const box = new THREE.Box3().setFromObject(group);
    return box.isEmpty() ? null : box;
  }

  /** Boxes of all riders but some. */
  placesBut(ids: readonly string[]): Vec3[] {
    return [...this.figures].flatMap(([id, { group }]) =>
      ids.includes(id) ? [] : [group.position.toArray()],
    );
  }

  /** Leaves out riders that contain the camera. */
  hideAround(eye: THREE.Vector3): void {
    for (const { group } of this.figures.values())
      if (group.position.distanceTo(eye) < AROUND) group.visible = false;
  }

  /** Leaves a rider out, as the one whose eyes are looked through, and those that are not seen now. */
  hide(id: string | null): void {
    for (const [riderId, { group }] of this.figures)
      group.visible = riderId !== id && !this.unseen.has(riderId);
  }

  /** The rider a ray meets first. */
  pick(ray: THREE.Raycaster): string | null {
    return this.hit(ray)?.id ?? null;
  }

  /** The rider a ray meets first, and the part of its model that it meets with its place in the rider's own space. */
  pickPart(ray: THREE.Raycaster): RiderPart | null {
    const found = this.hit(ray);
    if (found === null) return null;
    const { id, object, group } = found;
    for (let part: THREE.Object3D | null = object; part && part !== group; part = part.parent) {
      const name = nameOf(part);
      if (!name || isJoint(part)) continue;
      const place = group.worldToLocal(part.getWorldPosition(new THREE.Vector3()));
      return { rider: id, node: name, at: place.toArray().map((value) => Number(value.toFixed(4))) as Vec3 };
    }
    return { rider: id, node: null, at: [0, 0, 0] };
  }

  private hit(ray: THREE.Raycaster): { id: string; object: THREE.Object3D; group: THREE.Group } | null {
    let nearest: { id: string; object: THREE.Object3D; group: THREE.Group; distance: number } | null = null;
    for (const [id, { group }] of this.figures) {
      if (!group.visible) continue;
      const hit = ray.intersectObject(group, true)[0];
      if (hit && (nearest === null || hit.distance < nearest.distance))
        nearest = { id, object: hit.object, group, distance: hit.distance };
    }
    return nearest;
  }

  /** First hit of a ray on the ground model. */
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

  /** Whether a figure or the ground is between two points, except these riders. */
  standsBetween(from: THREE.Vector3, to: THREE.Vector3, except: ReadonlySet<string>): boolean {
    const groups = [...this.figures].flatMap(([id, { group }]) => (except.has(id) ? [] : [group]));
    if (this.ground) groups.push(this.ground.group);
    // A sheet is met from its upper side alone, so the way is looked along both ways.
    return [
      [from, to],
      [to, from],
    ].some(([begin, end]) => {
      const way = end.clone().sub(begin);
      const far = way.length();
      const ray = seeCopies(new THREE.Raycaster(begin, way.normalize(), 0.01, far));
      return ray.intersectObjects(groups, true).length > 0;
    });
  }

  /**
   * Makes things between a camera and a rider transparent: other riders, and what is built on the ground, but not the
   * ground itself. Null restores all.
   *
   * @returns whether that changed anything
   */
  fadeBefore(eye: THREE.Vector3, id: string | null): boolean {
    const box = id === null ? null : this.boxOf(id);
    const changed = this.fading.show(box && id !== null ? this.between(eye, box, id) : new Set());
    if (changed) this.copies.invalidate();
    return changed;
  }

  private between(eye: THREE.Vector3, box: THREE.Box3, id: string): Set<THREE.Mesh> {
    const found = new Set<THREE.Mesh>();
    const middle = box.getCenter(new THREE.Vector3());
    const top = middle.clone().setY(box.min.y + 0.9 * (box.max.y - box.min.y));
    const ground = this.groundBox()?.getSize(new THREE.Vector3());
    const isGround = (mesh: THREE.Mesh) => {
      const size = new THREE.Box3().setFromObject(mesh).getSize(new THREE.Vector3());
      return ground !== undefined && (size.x > WIDE * ground.x || size.z > WIDE * ground.z);
    };
    for (const place of [middle, top]) {
      const way = place.clone().sub(eye);
      const ray = seeCopies(new THREE.Raycaster(eye, way.clone().normalize(), 0.05, way.length()));
      for (const [other, { group }] of this.figures) {
        if (other === id || !group.visible || ray.intersectObject(group, true).length === 0) continue;
        group.traverse((part) => part instanceof THREE.Mesh && found.add(part));
      }
      for (const { object } of this.ground ? ray.intersectObject(this.ground.group, true) : [])
        if (object instanceof THREE.Mesh && !isGround(object)) found.add(object);
    }
    return found;
  }

  private drop(figure: Figure | null): null {
    if (figure) {
      this.object.remove(figure.group);
      this.changed();
    }
    return null;
  }

  private figure(
    current: Figure | null,
    { model, camera }: Pick<Rider, 'model' | 'camera'>,
    shot: Shot,
    color: string,
    ghost: Axis | 'none' | null = null,
  ): Figure {
    const source = shot.models.find(({ id }) => id === model)?.source;
    const built = `${source?.asset ?? source?.file ?? (camera ? 'camera' : '')} ${color} ${ghost}`;
    if (current?.built === built) return current;
    this.drop(current);
    const group = new THREE.Group();
    this.object.add(group);
    const add = (object: THREE.Object3D) => {
      if (ghost === null) castAndTakeShadows(object);
      else makeGhost(object, color);
      if (ghost !== null && ghost !== 'none') group.add(noseArrow(object, ghost, color));
      group.add(object);
      this.changed();
      this.redraw();
    };
    if (source?.asset === undefined)
      add(camera ? this.standIns.cameraCase(color) : this.standIns.carriage(color));
    else {
      const coming = this.models.copyOf(source.asset).then(add, (error: unknown) => {
        add(this.standIns.carriage(color));
        this.tellOnce(`A model could not be shown, a stand-in rides instead: ${sentenceOf(error)}`);
      });
      this.coming.add(coming);
      void coming.finally(() => this.coming.delete(coming));
    }
    return { group, built };
  }

  private tellOnce(text: string): void {
    if (this.reported.has(text)) return;
    this.reported.add(text);
    this.tell(text);
  }

  private changed(): void {
    this.changes++;
    this.soles.clear();
    this.copies.invalidate();
  }
}

function castAndTakeShadows(object: THREE.Object3D): void {
  object.traverse((part) => {
    if (part instanceof THREE.Mesh) part.castShadow = part.receiveShadow = true;
  });
}

function setPose(group: THREE.Object3D, pose: Float64Array): void {
  const [x, y, z, qx, qy, qz, qw] = pose.subarray(0, POSE.distance);
  group.position.set(x, y, z);
  group.quaternion.set(qx, qy, qz, qw);
}
