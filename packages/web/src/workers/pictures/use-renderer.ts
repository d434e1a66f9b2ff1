import { proxy, wrap } from 'comlink';
import { useEffect, useState } from 'react';
import type { RendererKind } from '@fleet-rail/core';
import type { RendererState } from './picture-renderer';
import type { RendererWorker } from './renderer-worker';

/**
 * Renders for the pool in a thread of this page, while it is wanted.
 *
 * @param shot draws for this shot first, and for others where nobody does; null for whatever waits
 * @returns what it does; null while it is not wanted
 */
export function useRenderer(
  wanted: boolean,
  name: string,
  kind: RendererKind,
  shot: string | null,
): RendererState | null {
  const [state, setState] = useState<RendererState | null>(null);
  useEffect(() => {
    if (!wanted) return;
    const worker = new Worker(new URL('./renderer-worker.ts', import.meta.url), { type: 'module' });
    const self = { id: crypto.randomUUID(), name, kind, ...(shot !== null && { shot }) };
    wrap<RendererWorker>(worker)
      .start(self, proxy(setState))
      // Its type or its program could not be fetched.
      .catch(() => setState({ doing: 'lost the server', done: 0, of: 0 }));
    return () => {
      worker.terminate();
      setState(null);
    };
  }, [wanted, name, kind, shot]);
  return state;
}
