import { Amount, Id } from './constraints.js';

/** Follows another rider, whatever moves that: at a distance behind it on its track, and beside it. */
export class Follow {
  @Id() rider!: string;
  /** Along the way the other went; below 0 ahead of it. */
  @Amount('metres', -1e6, 1e6) behind = 0;
  /** To the other's left and over it, as that was turned there. */
  @Amount('metres', -1e6, 1e6) side = 0;
  @Amount('metres', -1e6, 1e6) rise = 0;
  /** Delay, frames. */
  @Amount('frames', -1e6, 1e6) delay = 0;
}
