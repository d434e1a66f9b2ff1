import type { GivenFile, ModelFacts } from '@fleet-rail/core/formats';

/** Files to be read as one model. */
export interface ModelJob {
  readonly files: readonly GivenFile[];
}

export interface ModelAnswer {
  readonly facts: ModelFacts;
  /** The name it is kept under. */
  readonly fileName: string;
  /** The GLB it is kept as, where that is not the file itself. */
  readonly converted: Uint8Array | null;
}
