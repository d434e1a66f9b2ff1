/** Message to a thread: a job, or the request for more of its answer. */
export type ToThread<Job> = { readonly job: Job } | { readonly more: true };

/** Why a job is refused, in words that are fit to be shown. */
export class JobRefusal extends Error {
  override readonly name: string = 'JobRefusal';
}

/** Message from a thread: parts of its answer, then its end, or a refusal that can be shown. */
export type FromThread<Part> =
  { readonly part: Part } | { readonly done: true } | { readonly refusal: string };
