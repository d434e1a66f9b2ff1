import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { JobCard, PictureJob, RendererCard } from '@fleet-rail/core';
import { request } from './request';

/** All jobs, the newest first, and who draws. */
export interface Pool {
  readonly jobs: readonly JobCard[];
  readonly renderers: readonly RendererCard[];
}

export const jobFileUrl = (job: string) => `/api/pool/jobs/${job}/file`;
export const jobPictureUrl = (job: string, index: number) => `/api/pool/jobs/${job}/pictures/${index}`;

const KEY = ['pool'];
/** Milliseconds between two looks while something is drawn, and while nothing is. */
const BUSY = 700;
const QUIET = 4_000;

/** All jobs and renderers, polled, more often while anything is drawn. */
export function usePool() {
  return useQuery({
    queryKey: KEY,
    queryFn: () => request<Pool>('GET', '/api/pool'),
    staleTime: 0,
    refetchInterval: ({ state }) => (state.data?.jobs.some((job) => job.state === 'drawing') ? BUSY : QUIET),
  });
}

export interface NewPoolJob extends PictureJob {
  readonly shotId: string | null;
  readonly fileName: string;
}

export function useAddJob() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (job: NewPoolJob) => request<JobCard>('POST', '/api/pool/jobs', job),
    onSuccess: () => client.invalidateQueries({ queryKey: KEY }),
  });
}

/** Takes a job back, or deletes its file. */
export function useRemoveJob() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (id: string) => request<void>('DELETE', `/api/pool/jobs/${id}`),
    onSettled: () => client.invalidateQueries({ queryKey: KEY }),
  });
}

/** Lets renderers have the paused runs of a job once more. */
export function useTryAgain() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (id: string) => request<JobCard>('POST', `/api/pool/jobs/${id}/again`),
    onSettled: () => client.invalidateQueries({ queryKey: KEY }),
  });
}
