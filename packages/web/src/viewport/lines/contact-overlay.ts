import { POSE, type Vec3 } from '@fleet-rail/core';
import * as THREE from 'three';
import { poseAt } from '../../workers/evaluation/pose-at';
import type { Theme } from '../../ui/theme/theme';
import type { DeskState } from '../../state/desk-store';
import { ChalkMarks } from './chalk-marks';
import { GroundBand } from './ground-band';
import { RigOverlay, type RigGrip } from './rig-overlay';
import type { RiderFigures } from '../figures/rider-figures';

/** Overlay of the Contact step for the selected rider: its rig over the model, marks on the ground, its search band. */
export class ContactOverlay {
  readonly object = new THREE.Group();
  private readonly rig = new RigOverlay();
  private readonly chalk = new ChalkMarks();
  private readonly band = new GroundBand();
  private readonly pose = new Float64Array(POSE.size);

  constructor() {
    this.object.add(this.rig.object, this.chalk.object, this.band.object);
  }

  /** Grips of the rig; none while it is not shown. */
  get grips(): readonly RigGrip[] {
    return this.object.visible ? this.rig.grips : [];
  }

  show(state: DeskState, theme: Theme, wanted: boolean, figures: RiderFigures): void {
    this.object.visible = wanted && state.view !== 'through';
    if (!this.object.visible) return;
    const { evaluation, shot, riderId, frame } = state;
    const rider = shot.riders.find(({ id }) => id === riderId) ?? null;
    const evaluated = rider === null ? undefined : evaluation?.riders.get(rider.id);
    if (evaluation && evaluated) poseAt(evaluation, evaluated, frame, this.pose);
    const feet = new Map(
      (rider?.gait?.feet ?? []).flatMap(({ node }): [string, Vec3][] => {
        const place = rider && figures.partPlace(rider.id, node);
        return place ? [[node, place]] : [];
      }),
    );
    this.rig.show(state, evaluated ? this.pose : null, feet, theme);
    this.chalk.show(rider, evaluation, theme);
    this.band.show(rider, evaluation?.paths.get(rider?.attachment?.path ?? '') ?? null);
  }

  dispose(): void {
    this.rig.dispose();
    this.chalk.dispose();
    this.band.dispose();
  }
}
