import { LIMITS, Dressing, ShotError, defaultsOf, freeId, freeName, type Shot } from '@fleet-rail/core';
import type { KeptModel } from '../api/models';
import type { Edit } from './edit';
import { withModel } from './rider-edits';

/**
 * The shot with another dressing.
 *
 * @param model of its pieces; null for a profile
 * @throws ShotError where that would be more than a shot holds
 */
export function addDressing(
  shot: Shot,
  path: string,
  name: string,
  parts: Partial<Dressing>,
  model: KeptModel | null = null,
): { shot: Shot; id: string } {
  if (shot.dressing.length >= LIMITS.laid)
    throw new ShotError('dressing', `${shot.dressing.length} already`, `at most ${LIMITS.laid}`);
  const dressed = model === null ? { shot, modelId: null } : withModel(shot, model);
  const free = freeName(name, shot.dressing);
  const id = freeId(free, shot.dressing);
  const laid: Dressing = { ...defaultsOf(Dressing), ...parts, id, name: free, path, model: dressed.modelId };
  return { shot: { ...dressed.shot, dressing: [...shot.dressing, laid] }, id };
}

export const changeDressing =
  (id: string, change: (laid: Dressing) => Dressing): Edit =>
  (shot) => ({ ...shot, dressing: shot.dressing.map((laid) => (laid.id === id ? change(laid) : laid)) });

export const deleteDressing =
  (id: string): Edit =>
  (shot) => ({ ...shot, dressing: shot.dressing.filter((laid) => laid.id !== id) });
