import { LIMITS, Laid, ShotError, defaultsOf, freeId, freeName, type Shot } from '@fleet-rail/core';
import type { KeptModel } from '../api/models';
import type { Edit } from './edit';
import { withModel } from './rider-edits';

/**
 * The shot with something more laid along a path.
 *
 * @param model of its pieces; null for a profile
 * @throws ShotError where that would be more than a shot holds
 */
export function layAlong(
  shot: Shot,
  path: string,
  name: string,
  parts: Partial<Laid>,
  model: KeptModel | null = null,
): { shot: Shot; id: string } {
  if (shot.laid.length >= LIMITS.laid)
    throw new ShotError('laid', `${shot.laid.length} already`, `at most ${LIMITS.laid}`);
  const dressed = model === null ? { shot, modelId: null } : withModel(shot, model);
  const free = freeName(name, shot.laid);
  const id = freeId(free, shot.laid);
  const laid: Laid = { ...defaultsOf(Laid), ...parts, id, name: free, path, model: dressed.modelId };
  return { shot: { ...dressed.shot, laid: [...shot.laid, laid] }, id };
}

export const changeLaid =
  (id: string, change: (laid: Laid) => Laid): Edit =>
  (shot) => ({ ...shot, laid: shot.laid.map((laid) => (laid.id === id ? change(laid) : laid)) });

export const deleteLaid =
  (id: string): Edit =>
  (shot) => ({ ...shot, laid: shot.laid.filter((laid) => laid.id !== id) });
