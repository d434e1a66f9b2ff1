import type { Shot } from '@fleet-rail/core';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { request } from './request';

export interface ShotCard {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly updatedAt: string;
  /** When a deleted shot goes for good; null while it is not deleted. */
  readonly deleteAfter: string | null;
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
  /** The save that made this revision, by the name its sender gave it. */
  readonly save: string | null;
}

/** Result of a save. */
export type SavedShot = Omit<KeptShot, 'document' | 'save'>;

export interface Checkpoint {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly createdAt: string;
}

/** A save that has no answer by then is sent again. */
const ANSWER_MS = 20_000;

export const openShot = (id: string) => request<KeptShot>('GET', `/api/shots/${id}`);
/** How often a shot was saved, without its document. */
export const revisionOf = (id: string) => request<SavedShot>('GET', `/api/shots/${id}/revision`);
/** @param save its name: sent again under it after an answer that was lost, it is known */
export const saveShot = (id: string, revision: number, document: Shot, save: string) =>
  request<SavedShot>('PUT', `/api/shots/${id}`, { revision, document, save }, AbortSignal.timeout(ANSWER_MS));
export const createShot = (body: { name?: string; document?: unknown }) =>
  request<KeptShot>('POST', '/api/shots', body);

export function useShots() {
  return useQuery({ queryKey: ['shots'], queryFn: () => request<ShotCard[]>('GET', '/api/shots') });
}

/** Shots that were deleted, the newest first. */
export function useDeletedShots() {
  return useQuery({
    queryKey: ['shots', 'deleted'],
    queryFn: () => request<ShotCard[]>('GET', '/api/shots/deleted'),
  });
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
    request<SavedShot>('PATCH', `/api/shots/${id}`, { name }),
  );
export const useDuplicateShot = () =>
  useListChange((id: string) => request<KeptShot>('POST', `/api/shots/${id}/duplicate`));
export const useDeleteShot = () => useListChange((id: string) => request<void>('DELETE', `/api/shots/${id}`));
export const useUndeleteShot = () =>
  useListChange((id: string) => request<KeptShot>('POST', `/api/shots/${id}/undelete`));

/** Counts of everything that was deleted for good. */
export interface Emptied {
  readonly shots: number;
  readonly checkpoints: number;
  readonly models: number;
  /** By so much the data folder became smaller. */
  readonly bytes: number;
}

/** Deletes one shot of the bin for good, or all where none is named. */
export const useEmptyBin = () =>
  useListChange((id: string | null) => request<Emptied>('DELETE', `/api/bin${id === null ? '' : `/${id}`}`));

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
