import type { ClipBlock, Rider } from '@fleet-rail/core';
import { changeRider } from './rider-edits';
import type { Edit } from './edit';

/** Other blocks for a rider. */
export const changeClips = (id: string, change: (clips: readonly ClipBlock[]) => ClipBlock[]): Edit =>
  changeRider(id, (rider): Rider => ({ ...rider, clips: change(rider.clips) }));
