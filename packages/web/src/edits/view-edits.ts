import { freeId, type KeptView } from '@fleet-rail/core';
import type { Edit } from './edit';

/** Keeps where the stage is looked from under a name. */
export const keepView =
  (name: string, { from, at }: Pick<KeptView, 'from' | 'at'>): Edit =>
  (shot) => ({ ...shot, views: [...shot.views, { id: freeId('view', shot.views), name, from, at }] });

export const dropView =
  (id: string): Edit =>
  (shot) => ({ ...shot, views: shot.views.filter((view) => view.id !== id) });
