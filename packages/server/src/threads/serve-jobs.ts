import { parentPort, type TransferListItem } from 'node:worker_threads';
import { PathError, ShotError } from '@fleet-rail/core/shots';
import { FormatError } from '@fleet-rail/core/format-facts';
import { JobRefusal, type FromThread, type ToThread } from './thread-job.js';

/**
 * Does one job after another in this thread. Each answers in parts, and the next part is only made when it is asked for, so that
 * a slow reader never makes it heap up.
 */
export function serveJobs<Job, Part>(work: (job: Job) => AsyncIterable<Part>): void {
  const port = parentPort;
  if (port === null) throw new Error('This script runs in a thread.');
  const send = (message: FromThread<Part>) => port.postMessage(message, buffersOf(message));
  let parts: AsyncIterator<Part> | null = null;
  port.on('message', async (message: ToThread<Job>) => {
    try {
      if ('job' in message) parts = work(message.job)[Symbol.asyncIterator]();
      const next = await parts?.next();
      send(next === undefined || next.done ? { done: true } : { part: next.value });
    } catch (error) {
      if (!isRefusal(error)) throw error;
      send({ refusal: error.message });
    }
  });
}

function isRefusal(error: unknown): error is Error {
  return [FormatError, ShotError, PathError, JobRefusal].some((kind) => error instanceof kind);
}

/** Bytes are handed over and not copied. */
function buffersOf(message: object): TransferListItem[] {
  const { part } = message as { part?: unknown };
  return part instanceof Uint8Array && part.buffer instanceof ArrayBuffer ? [part.buffer] : [];
}
