import { frameCount } from '../../document/frames.js';
import type { Shot } from '../../document/shot.js';
import { evaluateShot, type EvaluatedShot } from '../evaluate/evaluate-shot.js';
import type { SceneAssets } from '../evaluate/scene-assets.js';
import { wholeRetiming } from '../../motion/timing/retiming.js';

/** A shot in the time of its work, and the shown frames of the work: bakes into the document use those. */
export interface WorkTime {
  readonly evaluated: EvaluatedShot;
  readonly first: number;
  /** Frames between samples. */
  readonly step: number;
  readonly count: number;
}

/** A retime shows frames between whole ones: it is sampled that much more closely. */
const BETWEEN = 8;

/** From the first frame to the one after the last, in which a loop begins again. */
export function workTime(shot: Shot, assets: SceneAssets): WorkTime {
  const plain = { ...shot, retimes: shot.retimes.filter(({ riders }) => riders.length > 0) };
  const evaluated = evaluateShot(plain, assets);
  const { first, last } = shot.range;
  const retiming = wholeRetiming(shot);
  if (retiming === null) return { evaluated, first, step: 1, count: frameCount(shot) + 1 };
  const shown = Array.from({ length: frameCount(shot) + 1 }, (_, i) => retiming.source(first + i));
  const [low, high] = [
    shown.reduce((a, b) => Math.min(a, b), last),
    shown.reduce((a, b) => Math.max(a, b), first),
  ];
  const start = Math.floor(low);
  return { evaluated, first: start, step: 1 / BETWEEN, count: Math.ceil(high - start) * BETWEEN + 1 };
}

export const frameOfSample = ({ first, step }: WorkTime, i: number): number => first + i * step;
