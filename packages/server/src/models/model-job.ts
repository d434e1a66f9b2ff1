import type { ModelFacts } from '@fleet-rail/core/formats';

/** A file to be read as a model. */
export interface ModelJob {
  readonly bytes: Uint8Array;
  readonly fileName: string;
}

export interface ModelAnswer {
  readonly facts: ModelFacts;
  /** The GLB it is kept as, where that is not the file itself. */
  readonly converted: Uint8Array | null;
}
