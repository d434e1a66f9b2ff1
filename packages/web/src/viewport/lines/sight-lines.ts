import { POSE, aimedAt, pointOn, type Shot, type Vec3 } from '@fleet-rail/core';
import * as THREE from 'three';
import { ORDER } from '../drawing/draw-order';
import type { Evaluation } from '../../workers/evaluation/evaluation';
import { poseAt } from '../../workers/evaluation/pose-at';
import { lineColor } from '../../ui/theme/theme';
import type { DeskState } from '../../state/desk-store';

/** How many lines are drawn over the range. */
const LINES = 24;

/**
 * Lines from a rider to what it aims at, at even steps of time: places in turn, two a line. None where it aims
 * at nothing, or at a place ahead.
 */
export function sightLines(shot: Shot, evaluation: Evaluation, riderId: string): Float32Array {
  const rider = shot.riders.find(({ id }) => id === riderId);
  const evaluated = evaluation.riders.get(riderId);
  const target = rider ? aimedAt(rider) : null;
  if (!evaluated || target === null) return new Float32Array(0);
  const other = target.rider === undefined ? null : evaluation.riders.get(target.rider);
  const scale = shot.riders.find(({ id }) => id === target.rider)?.rest.scale ?? [1, 1, 1];
  const places: number[] = [];
  const pose = new Float64Array(POSE.size);
  const { first, last } = shot.range;
  for (let i = 0; i <= LINES; i++) {
    const frame = first + ((last - first) * i) / LINES;
    let there = target.point ?? null;
    if (other) {
      poseAt(evaluation, other, frame, pose);
      there = pointOn(pose, (target.at ?? [0, 0, 0]).map((value, k) => value * scale[k]) as Vec3);
    }
    if (there === null) continue;
    poseAt(evaluation, evaluated, frame, pose);
    places.push(pose[0], pose[1], pose[2], ...there);
  }
  return Float32Array.from(places);
}

/** Lines from the selected rider to what it aims at, on the stage. */
export class SightLines {
  readonly object = new THREE.LineSegments(
    new THREE.BufferGeometry(),
    new THREE.LineBasicMaterial({ transparent: true, opacity: 0.55, depthWrite: false }),
  );
  private inputs: readonly unknown[] = [];

  constructor() {
    this.object.frustumCulled = false;
    this.object.renderOrder = ORDER.sights;
  }

  show({ shot, evaluation, riderId, shows, view }: DeskState, wanted: boolean): void {
    const rider = shot.riders.find(({ id }) => id === riderId);
    const shown = wanted && shows.sights && view !== 'through' && evaluation !== null && rider !== undefined;
    const inputs = shown ? [evaluation, rider] : [];
    if (inputs.length === this.inputs.length && inputs.every((input, i) => input === this.inputs[i])) return;
    this.inputs = inputs;
    const lines = shown ? sightLines(shot, evaluation, rider.id) : new Float32Array(0);
    this.object.geometry.dispose();
    this.object.geometry = new THREE.BufferGeometry();
    this.object.geometry.setAttribute('position', new THREE.BufferAttribute(lines, 3));
    this.object.material.color.set(lineColor(rider?.color ?? 0));
    this.object.visible = lines.length > 0;
  }

  dispose(): void {
    this.object.geometry.dispose();
    this.object.material.dispose();
  }
}
