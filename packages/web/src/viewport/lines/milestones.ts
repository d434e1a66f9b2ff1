import { POSE, mapFrames, type Vec3 } from '@fleet-rail/core';
import * as THREE from 'three';
import { ORDER } from '../drawing/draw-order';
import { poseAt } from '../../workers/evaluation/pose-at';
import { lineColor, type Theme } from '../../ui/theme/theme';
import type { DeskState } from '../../state/desk-store';
import { dots, placeDots, setTriples } from './dots';

/** A place on the trail of what is moved by hand, and the frame of the shot at which it is there. */
export interface TrailPlace {
  readonly frame: number;
  readonly position: Vec3;
}

/** No more frames are drawn as dots. */
const MOST_DOTS = 400;

/** The trail of a rider that is moved by hand: a stone at each key, a dot at every frame between. */
export class Milestones {
  readonly object = new THREE.Group();
  /** Stones at keys, then dots at frames. */
  stones: readonly TrailPlace[] = [];
  frames: readonly TrailPlace[] = [];
  private readonly trail = new THREE.Line(
    new THREE.BufferGeometry(),
    new THREE.LineBasicMaterial({ depthTest: false, transparent: true }),
  );
  private readonly ribs = dots(5, 'disc');
  private readonly heads = dots(15, 'ring');
  private inputs: readonly unknown[] = [];

  constructor() {
    this.object.add(this.trail, this.ribs, this.heads);
    this.object.traverse((part) => {
      part.renderOrder = ORDER.milestones;
      part.frustumCulled = false;
    });
    this.object.visible = false;
  }

  show(state: DeskState, theme: Theme, wanted: boolean): void {
    const { shot, riderId, evaluation, view } = state;
    const rider = shot.riders.find(({ id }) => id === riderId);
    const evaluated = evaluation?.riders.get(riderId ?? '');
    const keyed = rider?.attachment === null && rider.frozen === null ? rider.transformKeys : null;
    const shown = wanted && view !== 'through' && !!keyed && !!evaluated;
    this.object.visible = shown;
    const inputs = [evaluated, rider, shown, theme];
    if (inputs.every((input, i) => input === this.inputs[i])) return;
    this.inputs = inputs;
    this.stones = this.frames = [];
    if (!shown || !evaluation || !rider) return;
    const pose = new Float64Array(POSE.size);
    const at = (frame: number): TrailPlace => {
      poseAt(evaluation, evaluated, frame, pose);
      return { frame, position: [pose[0], pose[1], pose[2]] };
    };
    const { first, last } = shot.range;
    const all = Array.from({ length: last - first + 1 }, (_, i) => at(first + i));
    const { shown: shownAt } = mapFrames(evaluated.timing?.steps ?? [], shot.range);
    this.stones = keyed.keys.flatMap(({ frame }) => {
      const seen = shownAt(frame);
      return seen === null || seen < first - 0.5 || seen > last + 0.5 ? [] : [at(Math.round(seen))];
    });
    const stride = Math.ceil(all.length / MOST_DOTS);
    this.frames = all.filter((_, i) => i % stride === 0);
    const color = lineColor(rider.color);
    setTriples(
      this.trail.geometry,
      'position',
      all.flatMap(({ position }) => position),
    );
    this.trail.material.color.set(color);
    placeDots(
      this.ribs,
      this.frames.map(({ position }) => position),
      this.frames.map(() => color),
    );
    placeDots(
      this.heads,
      this.stones.map(({ position }) => position),
      this.stones.map(() => theme.ink),
    );
  }

  dispose(): void {
    for (const { geometry, material } of [this.trail, this.ribs, this.heads]) {
      geometry.dispose();
      material.dispose();
    }
  }
}
