import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { Document, WebIO } from '@gltf-transform/core';
import type { Random } from '../random.js';
import type { FaultStage } from './fault-stage.js';
import { wholePicture } from './forged-pictures.js';

/** Work that a kill interrupts; its check says afterwards what is wrong, or null. */
type Interrupted = (
  stage: FaultStage,
  random: Random,
) => Promise<{ work: Promise<void>; check: () => Promise<string | null> }>;

const INTERRUPTED: Readonly<Record<string, Interrupted>> = {
  saves: async (stage, random) => {
    const { id } = (await (await stage.api.send('POST', '/api/shots', { name: 'Kept' })).json()) as {
      id: string;
    };
    const points = random.list(50, 800, (i) => ({ position: [i, 0, random.between(0, 9)] }));
    let acknowledged = 1;
    const work = async () => {
      for (let revision = 1; revision < 200; revision++) {
        const paths = [{ id: 'p', name: 'P', points }];
        const document = { format: 'fleet-rail-shot', version: 2, name: `Save ${revision + 1}`, paths };
        const answer = await stage.api.send('PUT', `/api/shots/${id}`, { revision, document });
        if (!answer.ok) return;
        acknowledged = revision + 1;
      }
    };
    const check = async () => {
      const kept = (await (await stage.api.get(`/api/shots/${id}`)).json()) as {
        revision: number;
        document: { name: string; paths: { points: unknown[] }[] };
      };
      if (kept.revision < acknowledged || kept.revision > acknowledged + 1)
        return `revision ${kept.revision} is kept, ${acknowledged} was acknowledged`;
      if (kept.revision > 1 && kept.document.name !== `Save ${kept.revision}`)
        return 'name and revision differ';
      const count = kept.document.paths[0]?.points.length ?? 0;
      return kept.revision > 1 && count !== points.length
        ? `${count} of ${points.length} points are kept`
        : null;
    };
    return { work: work(), check };
  },

  uploads: async (stage, random) => {
    const acknowledged: string[] = [];
    const work = async () => {
      for (let n = 0; n < 50; n++) {
        const answer = await stage.api.upload('/api/models', `m${n}.glb`, await model(`${random.next()}`));
        if (answer.ok) acknowledged.push(((await answer.json()) as { id: string }).id);
      }
    };
    const check = async () => {
      const models = (await (await stage.api.get('/api/models')).json()) as { id: string }[];
      const lost = acknowledged.find((id) => !models.some((one) => one.id === id));
      if (lost !== undefined) return `the acknowledged model ${lost} is gone`;
      const folder = join(stage.data, 'models');
      for (const name of existsSync(folder) ? readdirSync(folder) : []) {
        const digest = createHash('sha256')
          .update(readFileSync(join(folder, name)))
          .digest('hex');
        if (digest !== name) return `the file ${name} is not whole`;
      }
      for (const { id } of models)
        if (!(await stage.api.get(`/api/models/${id}/file`)).ok) return `the model ${id} has no file`;
      return null;
    };
    return { work: work(), check };
  },

  bakes: async (stage, random) => {
    const [{ id }] = (await (await stage.api.get('/api/shots')).json()) as { id: string }[];
    const kind = random.of(['csv', 'glb', 'usd']);
    const bake = async () => {
      const answer = await stage.api.get(`/api/shots/${id}/files/${kind}?to=${12}`);
      return digestOf(new Uint8Array(await answer.arrayBuffer()));
    };
    const before = await bake();
    const work = async () => {
      for (let n = 0; n < 50; n++) await bake();
    };
    return { work: work(), check: async () => ((await bake()) === before ? null : `the ${kind} differs`) };
  },

  films: async (stage) => {
    const { job, run, renderer } = await stage.api.takenRun(24);
    let given = 0;
    const work = async () => {
      for (let i = 0; i < 4; i++) {
        const answer = await stage.api.put(
          `/api/pool/batches/${run}/pictures/${i}?renderer=${renderer}`,
          wholePicture(i),
          'image/png',
        );
        if (answer.status === 204) given = i + 1;
      }
    };
    const check = async () => {
      for (let i = 0; i < given; i++) {
        const answer = await stage.api.get(`/api/pool/jobs/${job}/pictures/${i}`);
        if (!answer.ok || !Buffer.from(await answer.arrayBuffer()).equals(wholePicture(i)))
          return `picture ${i} was acknowledged and is not there`;
      }
      return (await stage.api.send('DELETE', `/api/pool/jobs/${job}`)).ok
        ? null
        : 'the job cannot be cancelled';
    };
    return { work: work(), check };
  },

  'restores and emptied bins': async (stage, random) => {
    const name = `Restored ${random.next()}`;
    const backup = new Uint8Array(await (await stage.api.get('/api/library/backup')).arrayBuffer());
    const made = (await (await stage.api.send('POST', '/api/shots', { name })).json()) as { id: string };
    await stage.api.send('POST', `/api/shots/${made.id}/checkpoints`, { name: 'Start' });
    await stage.api.send('DELETE', `/api/shots/${made.id}`);
    const work = async () => {
      await stage.api.send('DELETE', '/api/bin');
      await stage.api.upload('/api/library/restore', 'backup.zip', backup);
    };
    const check = async () => {
      const deleted = (await (await stage.api.get('/api/shots/deleted')).json()) as { id: string }[];
      const checkpoints = (await (
        await stage.api.get(`/api/shots/${made.id}/checkpoints`)
      ).json()) as unknown[];
      const isThere = deleted.some(({ id }) => id === made.id);
      if (!isThere && checkpoints.length > 0) return 'a checkpoint outlived its shot';
      return (await stage.api.get('/api/library/backup')).ok ? null : 'no backup can be made';
    };
    return { work: work(), check };
  },
};

export const KINDS_OF_WORK = Object.keys(INTERRUPTED);

/** Kills the server in the middle of something, starts it again and says what is wrong then; null where nothing is. */
export async function tryKill(seed: number, random: Random, stage: FaultStage): Promise<string | null> {
  const kind = KINDS_OF_WORK[seed % KINDS_OF_WORK.length];
  const { work, check } = await INTERRUPTED[kind](stage, random);
  const over = work.catch(() => undefined);
  await setTimeout(random.whole(0, 400));
  await stage.kill();
  await over;
  await stage.start();
  const problem = (await check()) ?? looseEnds(stage.data);
  return problem === null ? null : `${kind}: ${problem}`;
}

/** Files that were never whole, or that belong to nothing. */
function looseEnds(data: string): string | null {
  const names = readdirSync(data, { recursive: true }) as string[];
  const loose = names.find((name) => name.endsWith('.part') || /^staging\/./.test(name));
  return loose === undefined ? null : `the file ${loose} was left behind`;
}

async function model(name: string): Promise<Uint8Array> {
  const document = new Document();
  document.createBuffer();
  document.createScene().addChild(document.createNode(name));
  return new WebIO().writeBinary(document);
}

const digestOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');
