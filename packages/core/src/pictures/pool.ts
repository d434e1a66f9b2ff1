/** The desk's own tab, another window, or a browser that the server started. */
export type RendererKind = 'desk' | 'window' | 'server';

/** A renderer's description of itself. */
export interface RendererSelf {
  readonly id: string;
  readonly name: string;
  readonly kind: RendererKind;
}

/** A renderer with a recent heartbeat. */
export interface RendererCard extends RendererSelf {
  /** The run it draws; null where it waits for one. */
  readonly run: string | null;
}

/** Batch of pictures of one renderer, or the joining of all of them, as it is shown. */
export interface BatchCard {
  readonly id: string;
  readonly kind: 'draw' | 'join';
  /** Index of its first picture, and how many there are. */
  readonly first: number;
  readonly count: number;
  readonly state: 'waiting' | 'taken' | 'given' | 'paused';
  readonly renderer: string | null;
  /** So many of its pictures were given back, or put into the file. */
  readonly done: number;
  /** How often a renderer of it was lost, or gave back what was no picture. */
  readonly lost: number;
  /** Why it is paused; null where it is not. */
  readonly problem: string | null;
}

/** Ordered pictures and their progress, as lists show them. */
export interface JobCard {
  readonly id: string;
  /** Shot at which they were ordered; null if ordered elsewhere. */
  readonly shotId: string | null;
  readonly name: string;
  readonly fileName: string;
  readonly pictures: number;
  /** So many of them are drawn. */
  readonly drawn: number;
  readonly width: number;
  readonly height: number;
  /** `paused`: all that is left waits until someone tries it again. */
  readonly state: 'drawing' | 'paused' | 'done';
  /** Why a run of it is paused. */
  readonly problem: string | null;
  /** Of the file, once it is whole. */
  readonly bytes: number | null;
  readonly createdAt: string;
  readonly doneAt: string | null;
  /** Index of a picture to show of it; null where there is none yet. */
  readonly shown: number | null;
  /** None of one that was whole long ago. */
  readonly runs: readonly BatchCard[];
}

/** Batch that a renderer has claimed. */
export interface ClaimedBatch {
  readonly run: string;
  readonly job: string;
  readonly kind: 'draw' | 'join';
  readonly first: number;
  readonly count: number;
  /** Milliseconds within which the renderer must send a heartbeat. */
  readonly lease: number;
}
