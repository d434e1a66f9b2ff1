import { wrap } from 'comlink';
import type { SceneryWorker } from './scenery-worker';

/** Reads models in a thread of its own, so that the desk stays answered. */
export function openScenery() {
  const worker = new Worker(new URL('./scenery-worker.ts', import.meta.url), { type: 'module' });
  return { reader: wrap<SceneryWorker>(worker), close: () => worker.terminate() };
}
