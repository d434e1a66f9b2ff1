// A thread that does what a test asks, good or bad.
import { setTimeout } from 'node:timers';
import { parentPort } from 'node:worker_threads';

const hoard = [];
let left = 0;
parentPort.on('message', (message) => {
  if (message.job === 'hang') for (;;);
  if (message.job === 'hoard') for (;;) hoard.push(new Array(1000).fill({}));
  if (message.job === 'throw') throw new Error('It is broken.');
  if (message.job === 'refuse') return parentPort.postMessage({ refusal: 'odd.glb: is no model.' });
  if (message.job === 'die idle') {
    // After its answer has gone out, while it waits for the next job.
    setTimeout(() => process.exit(3), 20);
    return parentPort.postMessage({ done: true });
  }
  if (typeof message.job === 'number') left = message.job;
  parentPort.postMessage(left > 0 ? { part: left-- } : { done: true });
});
