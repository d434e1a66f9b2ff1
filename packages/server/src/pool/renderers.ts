import { Inject, Injectable } from '@nestjs/common';
import type { RendererCard, RendererSelf } from '@fleet-rail/core/shots';
import { SETTINGS } from '../settings.token.js';
import type { Settings } from '../settings.js';

/** Renderers, known as long as they send heartbeats. */
@Injectable()
export class Renderers {
  private readonly known = new Map<string, RendererCard & { readonly seen: number }>();

  constructor(@Inject(SETTINGS) private readonly settings: Settings) {}

  heard(self: RendererSelf, run: string | null): void {
    this.known.set(self.id, { ...self, run, seen: Date.now() });
  }

  /** A heartbeat while it drew a batch. */
  draws(id: string, run: string | null): void {
    const renderer = this.known.get(id);
    if (renderer) this.heard(renderer, run);
  }

  list(): RendererCard[] {
    const since = Date.now() - this.settings.lease;
    for (const [id, { seen }] of this.known) if (seen < since) this.known.delete(id);
    const all = [...this.known.values()].sort((a, b) => a.name.localeCompare(b.name));
    return all.map(({ id, name, kind, run }) => ({ id, name, kind, run }));
  }
}
