import type { Rider } from '@fleet-rail/core';
import type { KeptModel } from '../api/models';
import { useDesk } from './desk-store';

/** What the server read from a rider's model; null where it wears none that is there. */
export function useKeptModel(rider: Rider | null): KeptModel | null {
  const asset = useDesk(({ shot }) => shot.models.find(({ id }) => id === rider?.model)?.source.asset);
  return useDesk(({ models }) => models.find(({ id }) => id === asset) ?? null);
}
