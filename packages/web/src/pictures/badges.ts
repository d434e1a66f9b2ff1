import { POSE, type Shot } from '@fleet-rail/core';
import * as THREE from 'three';
import type { Evaluation } from '../evaluation/evaluation';
import { poseAt } from '../evaluation/pose-at';
import { LABEL_FONT } from '../theme/fonts';
import { lineColor, textOn } from '../theme/theme';

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
  target.font = `600 ${0.68 * tall}px ${LABEL_FONT}`;
  target.textAlign = 'center';
  target.textBaseline = 'middle';
  for (const rider of shot.riders) {
    const evaluated = evaluation.riders.get(rider.id);
    if (!evaluated) continue;
    poseAt(evaluation, evaluated, frame, pose);
    const at = new THREE.Vector3(pose[0], pose[1], pose[2]).project(camera);
    if (at.z > 1 || Math.abs(at.x) > 1 || Math.abs(at.y) > 1) continue;
    const middle = x + ((at.x + 1) / 2) * width;
    const top = y + ((1 - at.y) / 2) * height + 0.4 * tall;
    const wide = Math.max(1.35 * tall, target.measureText(rider.badge).width + 0.6 * tall);
    target.fillStyle = lineColor(rider.color);
    target.beginPath();
    target.roundRect(middle - wide / 2, top, wide, tall, tall / 2);
    target.fill();
    target.fillStyle = textOn(lineColor(rider.color));
    target.fillText(rider.badge, middle, top + 0.53 * tall);
  }
  target.restore();
}
