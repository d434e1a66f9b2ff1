import type { Shot } from '@fleet-rail/core';

/** The files a shot is handed over as. */
export type BakeFormat = 'glb' | 'csv' | 'laid';

/** What a bake thread is given. */
export interface BakeJob {
  readonly shot: Shot;
  readonly format: BakeFormat;
  /** How far a value of the GLB may be off where keys are left out; 0 writes every frame. */
  readonly within: number;
  /** Of `laid`: which of what is laid is given out. */
  readonly laid: string | null;
  /** By the document's model ids: where the bytes lie and the name they came under. */
  readonly models: ReadonlyMap<string, { path: string; fileName: string }>;
}
