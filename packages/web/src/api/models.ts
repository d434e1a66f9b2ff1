import type { ModelFacts, ModelPlacing } from '@fleet-rail/core/formats';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { request } from './request';

export interface KeptModel {
  readonly id: string;
  readonly name: string;
  readonly fileName: string;
  readonly bytes: number;
  readonly shipped: boolean;
  readonly facts: ModelFacts;
}

/** Address of a model's file. */
export const modelFileUrl = (id: string) => `/api/models/${id}/file`;

export function useModels() {
  return useQuery({ queryKey: ['models'], queryFn: () => request<KeptModel[]>('GET', '/api/models') });
}

/** Deletes a model that nothing uses. */
export function useDeleteModel() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (id: string) => request<void>('DELETE', `/api/models/${id}`),
    onSuccess: () => client.invalidateQueries({ queryKey: ['models'] }),
  });
}

/** The same model placed otherwise. */
export function usePlaceModel() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ id, placing }: { id: string; placing: ModelPlacing }) =>
      request<KeptModel>('POST', `/api/models/${id}/placed`, placing),
    onSuccess: () => client.invalidateQueries({ queryKey: ['models'] }),
  });
}

export function useUploadModel() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (files: readonly File[]) => {
      const form = new FormData();
      // Files of a folder keep their paths in it, by which they name each other.
      for (const file of files) form.append('file', file, file.webkitRelativePath || file.name);
      return request<KeptModel>('POST', '/api/models', form);
    },
    onSuccess: () => client.invalidateQueries({ queryKey: ['models'] }),
  });
}
