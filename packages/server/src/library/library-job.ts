import type { EmptiedDto } from '../bin/bin.dto.js';
import type { RestoredDto } from './library.dto.js';

/** Work on the whole library, done in a thread with a connection of its own to the database. */
export type LibraryJob = { readonly dataFolder: string } & (
  | { readonly kind: 'backup' }
  | { readonly kind: 'restore'; readonly zip: string; readonly staging: string }
  | { readonly kind: 'empty'; readonly which: BinChoice }
);

/** Which shots of the bin go for good: one, all, or those whose time is over. */
export type BinChoice = { readonly id: string } | 'all' | 'expired';

/** What such work answers with: bytes of a file, how far it is, or what came of it. */
export type LibraryPart =
  | Uint8Array
  | { readonly done: number; readonly of: number }
  | { readonly restored: RestoredDto }
  | { readonly emptied: EmptiedDto };
