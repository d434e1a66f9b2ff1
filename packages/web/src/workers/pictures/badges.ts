import { POSE, type Shot } from '@fleet-rail/core';
import * as THREE from 'three';
import type { Evaluation } from '../evaluation/evaluation';
import { poseAt } from '../evaluation/pose-at';
import { paintBadge } from '../../ui/paint-badge';

/** A badge's height, of the picture's. */
const HEIGHT = 0.03;

const pose = new Float64Array(POSE.size);

/** Draws riders' badges below where they are, as on the stage. */
export function drawBadges(
  target: OffscreenCanvasRenderingContext2D,
  shot: Shot,
  evaluation: Evaluation,
  frame: number,
  camera: THREE.Camera,
  { x, y, width, height }: { x: number; y: number; width: number; height: number },
): void {
  const tall = Math.max(12, HEIGHT * height);
  target.save();
  for (const rider of shot.riders) {
    const evaluated = evaluation.riders.get(rider.id);
    if (!evaluated) continue;
    poseAt(evaluation, evaluated, frame, pose);
    const at = new THREE.Vector3(pose[0], pose[1], pose[2]).project(camera);
    if (at.z > 1 || Math.abs(at.x) > 1 || Math.abs(at.y) > 1) continue;
    const middle = x + ((at.x + 1) / 2) * width;
    const top = y + ((1 - at.y) / 2) * height + 0.4 * tall;
    paintBadge(target, middle, top, tall, rider);
  }
  target.restore();
}
