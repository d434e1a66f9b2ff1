import { useMutation, useQueryClient } from '@tanstack/react-query';
import { request } from './request';

/** Where everything that is kept is downloaded from, as one zip. */
export const BACKUP_URL = '/api/library/backup';

/** What a backup brought. */
export interface Restored {
  readonly shots: number;
  readonly checkpoints: number;
  readonly models: number;
  readonly there: number;
  readonly refused: readonly string[];
}

/** Takes a backup in again, beside what is there. */
export function useRestore() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.append('file', file);
      return request<Restored>('POST', '/api/library/restore', form);
    },
    onSuccess: () => client.invalidateQueries(),
  });
}

/** What was restored, for a person; what was not is listed after it. */
export function restoredInWords({ shots, checkpoints, models, there, refused }: Restored): string {
  const counted = (count: number, one: string) => `${count} ${one}${count === 1 ? '' : 's'}`;
  const brought = [counted(shots, 'shot'), counted(checkpoints, 'checkpoint'), counted(models, 'model')].join(
    ', ',
  );
  const left = there > 0 ? ` ${there} more were here already.` : '';
  const bad = refused.length > 0 ? ' Not taken:' : '';
  return `Restored ${brought}.${left}${bad}`;
}
