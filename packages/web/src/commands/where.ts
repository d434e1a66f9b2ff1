import type { Shot } from '@fleet-rail/core';
import { STEPS, type StepId } from '../state/steps';

/** Step at which a field of a rider is set, by the beginning of its document path. */
const SET_AT: readonly (readonly [RegExp, StepId])[] = [
  [/^attachment\.(pace|takes)/, 'pace'],
  [/^attachment\.(facing|bank|offset|offsetKeys|anchor|influence)|^camera/, 'facing'],
  [/^attachment\.ground|^(wheels|gait|cycles|body|chassis|rigidBody|hangingParts|emitter)/, 'contact'],
  [/^/, 'attach'],
];

/** A document path as an animator names it: the rider or path, and its step. */
export function whereOf(shot: Shot, at: string): string {
  const [, list, index, rest] = /^(riders|paths|cues|models|dressing)(?:\[(\d+)\])?\.?(.*)$/.exec(at) ?? [];
  if (list === 'riders' && shot.riders[Number(index)]) {
    const { badge, name } = shot.riders[Number(index)];
    const id = SET_AT.find(([begins]) => begins.test(rest))?.[1];
    return `${badge} ${name}, under ${STEPS.find((step) => step.id === id)?.name}`;
  }
  if (list === 'paths' && shot.paths[Number(index)]) return `${shot.paths[Number(index)].name}, under Path`;
  if (list === 'dressing' && shot.dressing[Number(index)])
    return `${shot.dressing[Number(index)].name}, under Path`;
  if (list === 'cues' && shot.cues[Number(index)]) return `${shot.cues[Number(index)].name}, under Pace`;
  if (list === 'models' && shot.models[Number(index)]) return shot.models[Number(index)].name;
  return 'The shot';
}
