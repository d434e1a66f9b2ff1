import type { SampleChoice, Shot } from '@fleet-rail/core/shots';
import type { PathKind, ThinningFacts } from '@fleet-rail/core/formats';

/** Kinds of baked files; `about` gives the facts of a GLB. */
export type BakeFormat = 'glb' | 'csv' | 'tables' | 'usd' | 'usdz' | 'laid' | 'about' | PathFormat;
/** One path alone. */
export type PathFormat = `path.${PathKind}`;

/** Choice of what a bake contains. */
export interface BakeChoice extends SampleChoice {
  /** How far any place in the world may be off where keys are left out, metres; 0 writes every frame. */
  readonly within: number;
  /** The same of turns, radians. */
  readonly turns: number;
  readonly clips: 'keep' | 'drop';
  /** Whether a CSV begins with lines of its rate and units. */
  readonly facts: boolean;
}

/** Input of a bake thread. */
export interface BakeJob {
  readonly shot: Shot;
  readonly format: BakeFormat;
  readonly choice: BakeChoice;
  /** Dressing or path that is exported alone. */
  readonly only: string | null;
  /** By the document's model ids: where the bytes lie and the name they came under. */
  readonly models: ReadonlyMap<string, { path: string; fileName: string }>;
}

/** Facts of a GLB before it is written. */
export type GlbFacts = ThinningFacts & { readonly bytes: number };
