import { Inject, Injectable } from '@nestjs/common';
import { SETTINGS } from '../settings.token.js';
import type { Settings } from '../settings.js';

/** A desk's own tab, a window that was lent, or a browser that the server started. */
export type TakerKind = 'desk' | 'window' | 'server';

/** Who says it is. */
export interface TakerSelf {
  readonly id: string;
  readonly name: string;
  readonly kind: TakerKind;
}

/** A taker that was heard of lately. */
export interface TakerCard extends TakerSelf {
  /** The run it draws; null where it waits for one. */
  readonly run: string | null;
}

/** Who draws: known for as long as they are heard of. */
@Injectable()
export class Takers {
  private readonly known = new Map<string, TakerCard & { readonly seen: number }>();

  constructor(@Inject(SETTINGS) private readonly settings: Settings) {}

  heard(self: TakerSelf, run: string | null): void {
    this.known.set(self.id, { ...self, run, seen: Date.now() });
  }

  /** It was heard of while it drew a run. */
  draws(id: string, run: string | null): void {
    const taker = this.known.get(id);
    if (taker) this.heard(taker, run);
  }

  list(): TakerCard[] {
    const since = Date.now() - this.settings.lease;
    for (const [id, { seen }] of this.known) if (seen < since) this.known.delete(id);
    return [...this.known.values()].map(({ id, name, kind, run }) => ({ id, name, kind, run }));
  }
}
