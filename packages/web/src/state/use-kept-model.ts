import type { Rider } from '@fleet-rail/core';
import type { KeptModel } from '../api/models';
import { useDesk } from './desk-store';

/** Model file of a rider on the server; null if there is none. */
export function useKeptModel(rider: Rider | null): KeptModel | null {
  const asset = useDesk(({ shot }) => shot.models.find(({ id }) => id === rider?.model)?.source.asset);
  return useDesk(({ models }) => models.find(({ id }) => id === asset) ?? null);
}
