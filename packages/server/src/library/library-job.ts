import type { EmptiedDto } from '../bin/bin.dto.js';
import type { RestoredDto } from './library.dto.js';

/** Work on the whole library, in a thread with its own connection to the database. */
export type LibraryJob = { readonly dataFolder: string } & (
  | { readonly kind: 'backup' }
  | { readonly kind: 'restore'; readonly zip: string; readonly staging: string }
  | { readonly kind: 'empty'; readonly which: BinChoice }
);

/** Which shots of the bin go for good: one, all, or those whose time is over. */
export type BinChoice = { readonly id: string } | 'all' | 'expired';

/** Parts of its answer: bytes of a file, progress, or the result. */
export type LibraryPart =
  | Uint8Array
  | { readonly done: number; readonly of: number }
  | { readonly restored: RestoredDto }
  | { readonly emptied: EmptiedDto };
