import { Amount, Id } from './constraints.js';

/** Goes where another rider went, whatever moves that: so far behind it on its way, and beside it. */
export class Follow {
  @Id() rider!: string;
  /** Along the way the other went; below 0 ahead of it. */
  @Amount('metres', -1e6, 1e6) behind = 0;
  /** To the other's left and over it, as that was turned there. */
  @Amount('metres', -1e6, 1e6) side = 0;
  @Amount('metres', -1e6, 1e6) rise = 0;
  /** And so many frames later. */
  @Amount('frames', -1e6, 1e6) delay = 0;
}
