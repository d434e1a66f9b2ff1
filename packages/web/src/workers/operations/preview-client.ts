import type { Shot } from '@fleet-rail/core';
import { wrap, type Remote } from 'comlink';
import type { GroundMesh } from '@fleet-rail/core';
import type { Operation } from './operation';
import { scopeOf, type Preview } from './preview';
import type { PreviewWorker } from './preview-worker';

/** Result of an operation: its preview, or why there is none. */
export type PreviewResult =
  | { readonly shot: Shot; readonly operation: Operation; readonly preview: Preview }
  | { readonly shot: Shot; readonly operation: Operation; readonly problem: string };

/** Computes previews in a worker, one at a time; of those that come in meanwhile only the newest is kept. */
export class PreviewClient {
  private readonly worker = new Worker(new URL('./preview-worker.ts', import.meta.url), { type: 'module' });
  private readonly remote: Remote<PreviewWorker> = wrap<PreviewWorker>(this.worker);
  private waiting: { shot: Shot; operation: Operation } | null = null;
  private busy = false;

  constructor(private readonly onResult: (result: PreviewResult) => void) {}

  setGround(mesh: GroundMesh | null): void {
    void this.remote.setGround(mesh);
  }

  preview(shot: Shot, operation: Operation): void {
    this.waiting = { shot, operation };
    if (!this.busy) void this.run();
  }

  close(): void {
    this.worker.terminate();
  }

  private async run(): Promise<void> {
    this.busy = true;
    while (this.waiting !== null) {
      const asked = this.waiting;
      this.waiting = null;
      try {
        const preview = await this.remote.preview(scopeOf(asked.shot, asked.operation), asked.operation);
        this.onResult({ ...asked, preview });
      } catch (error) {
        this.onResult({ ...asked, problem: (error as Error).message });
      }
    }
    this.busy = false;
  }
}
