import { Random } from '../random.js';
import type { FaultStage } from './fault-stage.js';
import { forgedPicture } from './forged-pictures.js';
import { hostileZip } from './hostile-zips.js';
import { tryKill } from './kills.js';

/** By kind what tries one fault, made from a seed; it gives what is wrong, or null. */
export const FAULTS = {
  pictures: tryPicture,
  zips: tryZip,
  kills: (seed, stage) => tryKill(seed, new Random(seed), stage),
} satisfies Record<string, (seed: number, stage: FaultStage) => Promise<string | null>>;

/** A forged picture has to be refused with a sentence, and the server goes on. */
async function tryPicture(seed: number, stage: FaultStage): Promise<string | null> {
  const { name, bytes } = forgedPicture(seed, new Random(seed));
  const { job, run, renderer } = await stage.api.takenRun(4);
  const path = `/api/pool/batches/${run}/pictures/0?renderer=${renderer}`;
  const answer = await stage.api.put(path, bytes, 'image/png').catch(() => null);
  if (answer === null || !stage.isAlive()) return `a picture ${name} ended the server`;
  const { message } = (await answer.json().catch(() => ({}))) as { message?: string };
  await stage.api.send('DELETE', `/api/pool/jobs/${job}`);
  return answer.status === 422 && message ? null : `a picture ${name} was answered with ${answer.status}`;
}

/** A hostile backup has to be refused with a sentence, and nothing of it is kept. */
async function tryZip(seed: number, stage: FaultStage): Promise<string | null> {
  const { name, bytes } = hostileZip(seed, new Random(seed));
  const count = async () => ((await (await stage.api.get('/api/shots')).json()) as unknown[]).length;
  const before = await count();
  const answer = await stage.api.upload('/api/library/restore', 'backup.zip', bytes).catch(() => null);
  if (answer === null || !stage.isAlive()) return `a backup ${name} ended the server`;
  const { message } = (await answer.json().catch(() => ({}))) as { message?: string };
  if (answer.status !== 400 || !message) return `a backup ${name} was answered with ${answer.status}`;
  return (await count()) === before ? null : `a backup ${name} left shots behind`;
}
