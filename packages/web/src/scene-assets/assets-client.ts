import { wrap } from 'comlink';
import type { SceneryWorker } from './assets-worker';

/** Reads models in a thread of its own, so that the desk stays answered. */
export function openAssetsReader() {
  const worker = new Worker(new URL('./assets-worker.ts', import.meta.url), { type: 'module' });
  return { reader: wrap<SceneryWorker>(worker), close: () => worker.terminate() };
}
