import type { DeskState } from '../../state/desk-store';
import { heatOf, type Heat } from './heat';

type Inputs = Pick<DeskState, 'shot' | 'evaluation' | 'riderId' | 'shows'>;

let cached: { from: readonly unknown[]; shown: { path: string; heat: Heat } | null } | null = null;

/** The heat of the selected rider's path, where it is asked for. Kept while nothing it follows from changes. */
export function heatShown({ shot, evaluation, riderId, shows }: Inputs): { path: string; heat: Heat } | null {
  const path = shot.riders.find(({ id }) => id === riderId)?.attachment?.path;
  const ribbon = path === undefined ? undefined : evaluation?.paths.get(path);
  const rider = riderId === null ? undefined : evaluation?.riders.get(riderId);
  const from = [ribbon, rider, shows.heat];
  if (cached === null || !from.every((part, i) => part === cached?.from[i])) {
    const shown =
      shows.heat === 'none' || path === undefined || !ribbon || !rider || ribbon.frames.length === 0
        ? null
        : { path, heat: heatOf(ribbon, rider, shows.heat) };
    cached = { from, shown };
  }
  return cached.shown;
}
