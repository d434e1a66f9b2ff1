import { findGait, puppetOfRider, type Axis, type FoundGait, type Rider } from '@fleet-rail/core';
import { useMemo } from 'react';
import type { KeptModel } from '../../api/models';
import { useDesk } from '../desk-store';

/** The clips a rider can play, and what each is as a gait: its model's own, and those it borrows as they play on it. */
export function useGaits(rider: Rider, model: KeptModel | null): readonly FoundGait[] {
  const puppets = useDesk((state) => state.puppets);
  const own = model?.facts.gaits;
  const { gait, model: worn } = rider;
  const forward: Axis = rider.hitch?.facing.forward ?? '+z';
  const up: Axis = rider.hitch?.facing.up ?? '+y';
  const source = gait?.source ?? null;
  return useMemo(() => {
    if (source === null) return own ?? [];
    const puppet = puppetOfRider({ puppets }, { model: worn, gait: { source } });
    const known = new Set(own?.map(({ clip }) => clip));
    if (puppet === null) return own ?? [];
    const lent = puppet.clips.filter(({ name }) => !known.has(name));
    return [...(own ?? []), ...lent.map((clip) => findGait(puppet, clip, forward, up))];
  }, [own, source, puppets, worn, forward, up]);
}
