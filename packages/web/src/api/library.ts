import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useRef } from 'react';
import { Cancelled, Refusal, request } from './request';

/** Address of the backup, one zip. */
export const BACKUP_URL = '/api/library/backup';

/** Contents restored from a backup. */
export interface Restored {
  readonly shots: number;
  readonly checkpoints: number;
  readonly models: number;
  readonly there: number;
  readonly refused: readonly string[];
}

/** How far a restore is, in entries of the backup. */
interface RestoreProgress {
  readonly done: number;
  readonly of: number;
}

/** Milliseconds between two looks at how far a restore is. */
const LOOK = 400;

/** Takes a backup in again, beside what is there: how far it is, 0 to 1 or null while it is uploaded, and how to cancel it. */
export function useRestore() {
  const client = useQueryClient();
  const running = useRef<{ name: string; control: AbortController } | null>(null);
  const mutation = useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.append('file', file);
      const { name, control } = { name: crypto.randomUUID(), control: new AbortController() };
      running.current = { name, control };
      return request<Restored>('POST', `/api/library/restore?name=${name}`, form, control.signal).catch(
        (error: unknown) => {
          // The server may confirm the cancellation before its upload is aborted here.
          throw error instanceof Refusal && error.status === 409 ? new Cancelled(error.message, 409) : error;
        },
      );
    },
    onSettled: () => client.invalidateQueries(),
  });
  const { data } = useQuery({
    queryKey: ['restoring', mutation.submittedAt],
    queryFn: () => request<RestoreProgress>('GET', `/api/library/restores/${running.current?.name}`),
    enabled: mutation.isPending,
    refetchInterval: LOOK,
    staleTime: 0,
  });
  return {
    ...mutation,
    part: data && data.of > 0 ? data.done / data.of : null,
    /** Too late once all of it is read and being written: then it ends normally. */
    cancel: async () => {
      const asked = running.current;
      if (asked === null) return;
      const { cancelled } = await request<{ cancelled: boolean }>(
        'DELETE',
        `/api/library/restores/${asked.name}`,
      );
      if (cancelled) asked.control.abort();
    },
  };
}

/** A model whose file is gone from the data folder. */
export interface MissingModel {
  readonly id: string;
  readonly fileName: string;
  /** Quoted names of shots that use it, the first few. */
  readonly usedBy: readonly string[];
}

/** Models whose files are gone. */
export function useMissingModels() {
  return useQuery({
    queryKey: ['library', 'missing'],
    queryFn: () => request<MissingModel[]>('GET', '/api/library/missing'),
  });
}

/** Says which model files are gone; null where none is. */
export function missingInWords(missing: readonly MissingModel[]): string | null {
  if (missing.length === 0) return null;
  const names = missing
    .slice(0, 3)
    .map(
      ({ fileName, usedBy }) => `${fileName}${usedBy.length > 0 ? ` (used by ${usedBy.join(', ')})` : ''}`,
    );
  const more = missing.length > names.length ? ` and ${missing.length - names.length} more` : '';
  const [files, them] = missing.length === 1 ? ['model file is', 'it'] : ['model files are', 'them'];
  return `${missing.length} ${files} missing: ${names.join(', ')}${more}. Backups leave ${them} out. Upload ${them} again under Attach.`;
}

/** Summary of a restore for a person; items that were skipped are listed after it. */
export function restoredInWords({ shots, checkpoints, models, there, refused }: Restored): string {
  const counted = (count: number, one: string) => `${count} ${one}${count === 1 ? '' : 's'}`;
  const brought = [counted(shots, 'shot'), counted(checkpoints, 'checkpoint'), counted(models, 'model')].join(
    ', ',
  );
  const left = there > 0 ? ` ${there} more were here already.` : '';
  const bad = refused.length > 0 ? ' Skipped:' : '';
  return `Restored ${brought}.${left}${bad}`;
}
