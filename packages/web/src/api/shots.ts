import type { Shot } from '@fleet-rail/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { request } from './request';

export interface ShotCard {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly updatedAt: string;
  readonly sketch: {
    readonly frames: number;
    readonly fps: number;
    readonly paths: readonly { readonly points: readonly number[]; readonly color: number | null }[];
    readonly riders: readonly { readonly badge: string; readonly color: number }[];
  };
}

export interface KeptShot {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly updatedAt: string;
  readonly document: Shot;
}

export interface Checkpoint {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly createdAt: string;
}

export const openShot = (id: string) => request<KeptShot>('GET', `/api/shots/${id}`);
export const saveShot = (id: string, revision: number, document: Shot) =>
  request<KeptShot>('PUT', `/api/shots/${id}`, { revision, document });
export const createShot = (body: { name?: string; document?: unknown }) =>
  request<KeptShot>('POST', '/api/shots', body);

export function useShots() {
  return useQuery({ queryKey: ['shots'], queryFn: () => request<ShotCard[]>('GET', '/api/shots') });
}

/** A change to the list of shots, after which the list is read again. */
function useListChange<In, Out>(change: (input: In) => Promise<Out>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: change,
    onSuccess: () => client.invalidateQueries({ queryKey: ['shots'] }),
  });
}

export const useCreateShot = () => useListChange(createShot);
export const useRenameShot = () =>
  useListChange(({ id, name }: { id: string; name: string }) =>
    request<KeptShot>('PATCH', `/api/shots/${id}`, { name }),
  );
export const useDuplicateShot = () =>
  useListChange((id: string) => request<KeptShot>('POST', `/api/shots/${id}/duplicate`));
export const useDeleteShot = () => useListChange((id: string) => request<void>('DELETE', `/api/shots/${id}`));
export const useUndeleteShot = () =>
  useListChange((id: string) => request<KeptShot>('POST', `/api/shots/${id}/undelete`));

export function useCheckpoints(shotId: string) {
  return useQuery({
    queryKey: ['checkpoints', shotId],
    queryFn: () => request<Checkpoint[]>('GET', `/api/shots/${shotId}/checkpoints`),
  });
}

export function useNewCheckpoint(shotId: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (name: string) => request<Checkpoint>('POST', `/api/shots/${shotId}/checkpoints`, { name }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['checkpoints', shotId] }),
  });
}

export const restoreCheckpoint = (shotId: string, checkpointId: string, revision: number) =>
  request<KeptShot>('POST', `/api/shots/${shotId}/checkpoints/${checkpointId}/restore`, { revision });
