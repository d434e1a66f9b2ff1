import { axisVector, ownAxes, pointOn, type Rider, type Vec3, type Wheel } from '@fleet-rail/core';
import * as THREE from 'three';
import { ORDER } from '../drawing/draw-order';
import type { Theme } from '../../ui/theme/theme';
import type { DeskState } from '../../state/desk-store';

/** Grips of a rig: the middle of a wheel, its rim, or a foot. */
export interface RigGrip {
  readonly node: string;
  readonly grip: 'centre' | 'rim' | 'foot';
  readonly position: Vec3;
}

const SEGMENTS = 40;
/** Length of a steer arc beyond the wheel, as a part of its radius. */
const ARC = 1.5;
const ARC_ANGLE = 0.6;
const FOOT = 0.07;

/** The wheels of a rider as rings with their axles, arcs where they steer, and its feet as discs; drawn over its model. */
export class RigOverlay {
  readonly object = new THREE.Group();
  private readonly lines = new THREE.LineSegments(new THREE.BufferGeometry(), material());
  private readonly found = new THREE.LineSegments(new THREE.BufferGeometry(), material());
  private readonly dots = new THREE.Points(
    new THREE.BufferGeometry(),
    new THREE.PointsMaterial({ size: 9, sizeAttenuation: false, depthTest: false, transparent: true }),
  );
  private current: RigGrip[] = [];

  constructor() {
    this.object.add(this.found, this.lines, this.dots);
    for (const part of this.object.children) {
      part.frustumCulled = false;
      part.renderOrder = ORDER.rig;
    }
    this.object.visible = false;
  }

  get grips(): readonly RigGrip[] {
    return this.object.visible ? this.current : [];
  }

  /**
   * Shows the rig of the selected rider at its pose; where it has none yet, what was found in its model, fainter.
   *
   * @param pose POSE.size numbers
   * @param feet by node where its feet are, in the rider's own space
   */
  show(state: DeskState, pose: Float64Array | null, feet: ReadonlyMap<string, Vec3>, theme: Theme): void {
    const rider = state.shot.riders.find(({ id }) => id === state.riderId);
    this.object.visible = rider !== undefined && pose !== null && rider.attachment !== null;
    if (!rider || pose === null || !this.object.visible) return;
    const asset = state.shot.models.find(({ id }) => id === rider.model)?.source.asset;
    const rig = state.models.find(({ id }) => id === asset)?.facts.rig;
    const toWorld = (place: Vec3): Vec3 =>
      pointOn(pose, place.map((value, k) => value * rider.rest.scale[k]) as Vec3, [0, 0, 0]);
    const bare = rider.wheels.length === 0;
    draw(
      this.lines,
      [
        ...rider.wheels.flatMap((wheel) => wheelLines(rider, wheel)),
        ...[...feet.values()].flatMap((foot) =>
          circle(foot, ownAxes(rider).ahead, ownAxes(rider).left, FOOT),
        ),
      ].map(toWorld),
    );
    draw(
      this.found,
      (bare ? (rig?.wheels ?? []) : []).flatMap((wheel) => wheelLines(rider, wheel)).map(toWorld),
    );
    this.current = [
      ...rider.wheels.flatMap((wheel): RigGrip[] => [
        { node: wheel.node, grip: 'centre', position: toWorld(wheel.centre) },
        { node: wheel.node, grip: 'rim', position: toWorld(rimOf(rider, wheel)) },
      ]),
      ...[...feet].map(([node, place]): RigGrip => ({ node, grip: 'foot', position: toWorld(place) })),
    ];
    const places = Float32Array.from(this.current.flatMap(({ position }) => position));
    this.dots.geometry.setAttribute('position', new THREE.BufferAttribute(places, 3));
    this.lines.material.color.set(theme.signal);
    this.found.material.color.set(theme.attention);
    this.dots.material.color.set(theme.ink);
  }

  dispose(): void {
    for (const part of [this.lines, this.found, this.dots]) {
      part.geometry.dispose();
      part.material.dispose();
    }
  }
}

function material(): THREE.LineBasicMaterial {
  return new THREE.LineBasicMaterial({ depthTest: false, transparent: true, opacity: 0.95 });
}

function draw(lines: THREE.LineSegments, places: readonly Vec3[]): void {
  const list = Float32Array.from(places.flat());
  lines.geometry.setAttribute('position', new THREE.BufferAttribute(list, 3));
  lines.geometry.setDrawRange(0, places.length);
}

/** The place of a wheel's rim straight ahead of its middle. */
function rimOf(rider: Rider, { centre, radius }: Wheel): Vec3 {
  const { ahead } = ownAxes(rider);
  return centre.map((value, k) => value + radius * ahead[k]) as Vec3;
}

/** A ring, its axle, and an arc ahead of it where it steers; places two by two, in the rider's own space. */
function wheelLines(rider: Rider, { centre, radius, axle, steers }: Wheel): Vec3[] {
  const { ahead, up, left } = ownAxes(rider);
  const way = axisVector(axle);
  const off = (along: Vec3, by: number) => centre.map((value, k) => value + by * along[k]) as Vec3;
  const lines = [...circle(centre, ahead, up, radius), off(way, -0.6 * radius), off(way, 0.6 * radius)];
  if (!steers) return lines;
  const at = (angle: number): Vec3 =>
    centre.map(
      (value, k) => value + ARC * radius * (Math.cos(angle) * ahead[k] + Math.sin(angle) * left[k]),
    ) as Vec3;
  for (let i = 0; i < 12; i++) {
    const from = -ARC_ANGLE + (2 * ARC_ANGLE * i) / 12;
    lines.push(at(from), at(from + (2 * ARC_ANGLE) / 12));
  }
  lines.push(centre, at(0));
  return lines;
}

function circle(centre: Vec3, u: Vec3, v: Vec3, radius: number): Vec3[] {
  const at = (i: number): Vec3 => {
    const angle = (2 * Math.PI * i) / SEGMENTS;
    return centre.map(
      (value, k) => value + radius * (Math.cos(angle) * u[k] + Math.sin(angle) * v[k]),
    ) as Vec3;
  };
  return Array.from({ length: SEGMENTS }, (_, i) => [at(i), at(i + 1)]).flat();
}
