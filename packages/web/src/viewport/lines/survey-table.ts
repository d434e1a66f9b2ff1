import { POSE, carriedPart, headingDeg, sourceFrame, type Vec3 } from '@fleet-rail/core';
import * as THREE from 'three';
import { ORDER } from '../drawing/draw-order';
import { poseAt } from '../../workers/evaluation/pose-at';
import type { Theme } from '../../ui/theme/theme';
import type { DeskState } from '../../state/desk-store';
import { dots, placeDots } from './dots';

/** Grips of the table: its top to move, the rim to turn, the plumb head to lift, the peg to size. */
export type TableGrip = 'top' | 'rim' | 'head' | 'peg';

/** Of the table's rim on the screen. */
const RIM_PIXELS = 44;
const RIM_WIDTH = 8;
const GRIP_PIXELS = 11;
/** In radii of the rim. */
const [HEAD_HEIGHT, PEG_AT] = [1.5, 1.4];

/** The round table that lies under what rides no path: it is moved, turned, lifted and sized by it. */
export class SurveyTable {
  readonly object = new THREE.Group();
  /** Its position; null while it is not shown. */
  place: Vec3 | null = null;
  private readonly flat = new THREE.Group();
  private readonly turned = new THREE.Group();
  private readonly top: THREE.Mesh<THREE.CircleGeometry, THREE.MeshBasicMaterial>;
  private readonly rim: THREE.LineSegments<THREE.BufferGeometry, THREE.LineBasicMaterial>;
  private readonly nose: THREE.Mesh<THREE.BufferGeometry, THREE.MeshBasicMaterial>;
  private readonly plumb: THREE.LineSegments<THREE.BufferGeometry, THREE.LineBasicMaterial>;
  private readonly head = dots(13, 'lozenge');
  private readonly peg = dots(10, 'disc');
  private readonly pose = new Float64Array(POSE.size);
  private radius = 1;
  private lifts = true;
  private ink = '#000000';
  private signal = '#000000';

  constructor() {
    const over = { depthTest: false, transparent: true };
    this.top = new THREE.Mesh(
      new THREE.CircleGeometry(1, 48).rotateX(-Math.PI / 2),
      new THREE.MeshBasicMaterial({ ...over, opacity: 0.22, side: THREE.DoubleSide }),
    );
    this.rim = new THREE.LineSegments(roseGeometry(), new THREE.LineBasicMaterial(over));
    this.nose = new THREE.Mesh(
      new THREE.BufferGeometry().setAttribute(
        'position',
        new THREE.Float32BufferAttribute([0, 0, 1.28, 0.1, 0, 1.04, -0.1, 0, 1.04], 3),
      ),
      new THREE.MeshBasicMaterial({ ...over, side: THREE.DoubleSide }),
    );
    this.plumb = new THREE.LineSegments(
      new THREE.BufferGeometry().setAttribute(
        'position',
        new THREE.Float32BufferAttribute([0, 0, 0, 0, HEAD_HEIGHT, 0], 3),
      ),
      new THREE.LineBasicMaterial(over),
    );
    this.turned.add(this.nose);
    this.flat.add(this.top, this.rim, this.turned, this.plumb);
    this.object.add(this.flat, this.head, this.peg);
    this.object.traverse((part) => {
      part.renderOrder = ORDER.table;
      part.frustumCulled = false;
    });
    this.object.visible = false;
  }

  show(state: DeskState, theme: Theme, wanted: boolean): void {
    const { shot, riderId, evaluation, frame, view, tool, attaching } = state;
    const rider = shot.riders.find(({ id }) => id === riderId);
    const evaluated = evaluation?.riders.get(riderId ?? '');
    const shown =
      wanted &&
      // While attaching is previewed, the preview is what matters.
      attaching === null &&
      tool.kind === 'select' &&
      view !== 'through' &&
      rider?.attachment === null &&
      rider.follow === null &&
      rider.frozen === null &&
      // A carried rider is placed by its carrier switch.
      (carriedPart(rider.parentKeys, shot.fps)?.(sourceFrame(shot, frame)) ?? 0) === 0;
    this.object.visible = shown && evaluated !== undefined;
    this.place = null;
    if (!shown || !evaluated || !evaluation) return;
    poseAt(evaluation, evaluated, frame, this.pose);
    this.place = [this.pose[0], this.pose[1], this.pose[2]];
    this.turned.rotation.y = (headingDeg(this.pose, '+z') * Math.PI) / 180;
    // From above the head would cover the table's middle.
    this.lifts = view !== 'plan';
    this.head.visible = this.plumb.visible = this.lifts;
    this.ink = theme.ink;
    this.signal = theme.signal;
    this.top.material.color.set(theme.panel);
    this.rim.material.color.set(theme.ink);
    this.plumb.material.color.set(theme.ink);
    this.nose.material.color.set(theme.signal);
  }

  update(metresPerPixel: (place: Vec3) => number): void {
    if (this.place === null) return;
    this.radius = RIM_PIXELS * metresPerPixel(this.place);
    this.flat.position.set(...this.place);
    this.flat.scale.setScalar(this.radius);
    placeDots(this.head, [this.gripPlace('head')], [this.signal]);
    placeDots(this.peg, [this.gripPlace('peg')], [this.ink]);
  }

  /**
   * Grip under the pointer.
   *
   * @param near   whether a place is drawn within so many pixels of the pointer
   * @param onTop  where the pointer is on the table's level; null where it looks past it, or at its edge
   */
  gripAt(near: (place: Vec3, pixels: number) => boolean, onTop: Vec3 | null): TableGrip | null {
    const { place, radius } = this;
    if (place === null) return null;
    if (this.lifts && near(this.gripPlace('head'), GRIP_PIXELS)) return 'head';
    if (near(this.gripPlace('peg'), GRIP_PIXELS)) return 'peg';
    if (onTop === null) return near(place, GRIP_PIXELS) ? 'top' : null;
    const far = Math.hypot(onTop[0] - place[0], onTop[2] - place[2]);
    const width = (RIM_WIDTH / RIM_PIXELS) * radius;
    if (Math.abs(far - radius) <= width) return 'rim';
    return far < radius ? 'top' : null;
  }

  dispose(): void {
    for (const { geometry, material } of [this.top, this.rim, this.nose, this.plumb, this.head, this.peg]) {
      geometry.dispose();
      material.dispose();
    }
  }

  /** Positions of head and peg. */
  gripPlace(grip: 'head' | 'peg'): Vec3 {
    const [x, y, z] = this.place ?? [0, 0, 0];
    const { radius } = this;
    if (grip === 'head') return [x, y + HEAD_HEIGHT * radius, z];
    return [x + PEG_AT * radius * Math.SQRT1_2, y, z + PEG_AT * radius * Math.SQRT1_2];
  }
}

/** A rim with the ticks of a compass rose inside it. */
function roseGeometry(): THREE.BufferGeometry {
  const places: number[] = [];
  const on = (angle: number, far: number) => [far * Math.sin(angle), 0, far * Math.cos(angle)];
  for (let i = 0; i < 64; i++) places.push(...on((i * Math.PI) / 32, 1), ...on(((i + 1) * Math.PI) / 32, 1));
  for (let i = 0; i < 24; i++) {
    const angle = (i * Math.PI) / 12;
    places.push(...on(angle, 1), ...on(angle, i % 6 === 0 ? 0.74 : i % 3 === 0 ? 0.84 : 0.92));
  }
  return new THREE.BufferGeometry().setAttribute('position', new THREE.Float32BufferAttribute(places, 3));
}
