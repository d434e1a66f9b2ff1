/** What a thread is sent: a job, or the wish for more of its answer. */
export type ToThread<Job> = { readonly job: Job } | { readonly more: true };

/** Why a job is refused, in words that are fit to be shown. */
export class JobRefusal extends Error {
  override readonly name: string = 'JobRefusal';
}

/** What it sends: its answer in parts, then its end, or a refusal that is fit to be shown. */
export type FromThread<Part> =
  { readonly part: Part } | { readonly done: true } | { readonly refusal: string };
