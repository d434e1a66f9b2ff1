import { wrap } from 'comlink';
import type { AssetsWorker } from './assets-worker';

/** Reads models in its own thread, so that the desk stays responsive. */
export function openAssetsReader() {
  const worker = new Worker(new URL('./assets-worker.ts', import.meta.url), { type: 'module' });
  return { reader: wrap<AssetsWorker>(worker), close: () => worker.terminate() };
}
