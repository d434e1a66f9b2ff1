import { POSE } from '@fleet-rail/core';
import { poseAt } from '../../workers/evaluation/pose-at';
import type { DeskStore } from '../../state/desk-store';

/** Speed of a rider at the shown frame, m/s; if it is stopped there, its mean over the shot. */
export function speedNow(desk: DeskStore, id: string): number {
  const { evaluation, frame } = desk.getState();
  const ridden = evaluation?.riders.get(id);
  if (!evaluation || !ridden) return 0;
  const pose = new Float64Array(POSE.size);
  poseAt(evaluation, ridden, frame, pose);
  const now = Math.abs(pose[POSE.speed]);
  if (now >= 0.01) return now;
  const speeds = speedsOf(ridden.poses);
  return speeds.reduce((sum, speed) => sum + speed, 0) / Math.max(1, speeds.length);
}

/** The fastest that a rider goes in a shot, m/s; 0 where its poses are not known. */
export const topSpeed = (poses: Float64Array | undefined): number =>
  poses ? speedsOf(poses).reduce((a, b) => Math.max(a, b), 0) : 0;

const speedsOf = (poses: Float64Array): number[] =>
  Array.from({ length: poses.length / POSE.size }, (_, i) => Math.abs(poses[i * POSE.size + POSE.speed]));
