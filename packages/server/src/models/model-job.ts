import type { GivenFile, ModelFacts, ModelPlacing } from '@fleet-rail/core/formats';

/** Files to be read as one model. */
export interface ModelJob {
  readonly files: readonly GivenFile[];
  /** How it is to be placed; null to leave it as it came. */
  readonly placing: ModelPlacing | null;
}

export interface ModelAnswer {
  readonly facts: ModelFacts;
  /** The name it is kept under. */
  readonly fileName: string;
  /** The GLB it is kept as, where that is not the file itself. */
  readonly converted: Uint8Array | null;
}
