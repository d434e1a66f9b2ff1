import { findGait, hierarchyOfRider, type Axis, type FoundGait, type Rider } from '@fleet-rail/core';
import { useMemo } from 'react';
import type { KeptModel } from '../api/models';
import { useDesk } from './desk-store';

/** The clips a rider can play, and what each is as a gait: its model's own, and those it borrows as they play on it. */
export function useGaits(rider: Rider, model: KeptModel | null): readonly FoundGait[] {
  const hierarchies = useDesk((state) => state.hierarchies);
  const own = model?.facts.gaits;
  const { gait, model: worn } = rider;
  const forward: Axis = rider.attachment?.facing.forward ?? '+z';
  const up: Axis = rider.attachment?.facing.up ?? '+y';
  const source = gait?.source ?? null;
  return useMemo(() => {
    if (source === null) return own ?? [];
    const hierarchy = hierarchyOfRider({ hierarchies }, { model: worn, gait: { source } });
    const ownNames = new Set(own?.map(({ clip }) => clip));
    if (hierarchy === null) return own ?? [];
    const lent = hierarchy.clips.filter(({ name }) => !ownNames.has(name));
    return [...(own ?? []), ...lent.map((clip) => findGait(hierarchy, clip, forward, up))];
  }, [own, source, hierarchies, worn, forward, up]);
}
