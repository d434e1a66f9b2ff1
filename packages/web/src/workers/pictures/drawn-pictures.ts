import type { PictureJob } from '@fleet-rail/core';
import type { Evaluation } from '../evaluation/evaluation';

/** The pictures of a job as PNG, to be made one file of. */
export interface DrawnPictures {
  readonly job: PictureJob;
  /** The picture of the plan with this index. */
  readonly picture: (index: number) => Promise<Blob>;
  /** The shot, for what is drawn of it beside the pictures. */
  readonly evaluation: () => Promise<Evaluation>;
  /** Told after each picture, of how many. */
  readonly told: (done: number, of: number) => void;
  readonly signal: AbortSignal;
}
