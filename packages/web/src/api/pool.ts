import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { PictureJob } from '@fleet-rail/core';
import { request } from './request';

/** Pictures that one taker draws one after the other, or the joining of all of them. */
export interface PoolRun {
  readonly id: string;
  readonly kind: 'draw' | 'join';
  readonly first: number;
  readonly count: number;
  readonly state: 'waiting' | 'taken' | 'given';
  readonly taker: string | null;
  readonly done: number;
  readonly lost: number;
}

/** Pictures that were wished for, and how far they are. */
export interface PoolJob {
  readonly id: string;
  readonly shotId: string | null;
  readonly name: string;
  readonly fileName: string;
  readonly pictures: number;
  readonly drawn: number;
  readonly width: number;
  readonly height: number;
  readonly state: 'drawing' | 'done' | 'failed';
  readonly problem: string | null;
  readonly bytes: number | null;
  readonly createdAt: string;
  readonly doneAt: string | null;
  /** Index of a picture to show of it. */
  readonly shown: number | null;
  readonly runs: readonly PoolRun[];
}

export type TakerKind = 'desk' | 'window' | 'server';

/** Who draws. */
export interface PoolTaker {
  readonly id: string;
  readonly name: string;
  readonly kind: TakerKind;
  readonly run: string | null;
}

export interface Pool {
  readonly jobs: readonly PoolJob[];
  readonly takers: readonly PoolTaker[];
}

export const jobFileUrl = (job: string) => `/api/pool/jobs/${job}/file`;
export const jobPictureUrl = (job: string, index: number) => `/api/pool/jobs/${job}/pictures/${index}`;

const KEY = ['pool'];
/** Milliseconds between two looks while something is drawn, and while nothing is. */
const BUSY = 700;
const QUIET = 4_000;

/**
 * All jobs and takers, looked at again and again while something is drawn.
 *
 * @param watched and also while nothing is
 */
export function usePool(watched: boolean) {
  return useQuery({
    queryKey: KEY,
    queryFn: () => request<Pool>('GET', '/api/pool'),
    staleTime: 0,
    refetchInterval: ({ state }) =>
      state.data?.jobs.some((job) => job.state === 'drawing') ? BUSY : watched && QUIET,
  });
}

export interface NewPoolJob extends PictureJob {
  readonly shotId: string | null;
  readonly fileName: string;
}

export function useAddJob() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (job: NewPoolJob) => request<PoolJob>('POST', '/api/pool/jobs', job),
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
