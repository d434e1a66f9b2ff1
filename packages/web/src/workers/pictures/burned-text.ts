import { POSE, fourDigits, type Shot } from '@fleet-rail/core';
import { frameLabel } from '../../timeline/diagram/diagram-scales';
import type { Evaluation } from '../evaluation/evaluation';
import { poseAt } from '../evaluation/pose-at';
import type { BurnedText } from './burn-in';

const pose = new Float64Array(POSE.size);

/** Texts for a picture of a frame. */
export function burnedText(
  shot: Shot,
  evaluation: Evaluation,
  frame: number,
  board: string | null,
): BurnedText {
  return {
    frame: fourDigits(frame),
    timecode: frameLabel(frame, 'timecode', shot),
    name: shot.name,
    board: boardOf(shot, evaluation, frame, board),
  };
}

function boardOf(shot: Shot, evaluation: Evaluation, frame: number, id: string | null): string[] {
  const rider = shot.riders.find((one) => one.id === id);
  const evaluated = rider && evaluation.riders.get(rider.id);
  if (!rider || !evaluated) return [];
  poseAt(evaluation, evaluated, frame, pose);
  const [metres, speed] = [pose[POSE.distance], pose[POSE.speed]].map((value) => value.toFixed(2));
  return [`${rider.badge} ${rider.name}`, `${metres} m`, `${speed} m/s`];
}
