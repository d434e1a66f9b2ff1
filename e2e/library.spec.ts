import { mkdtempSync, readFileSync, readdirSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { APIRequestContext, Page } from '@playwright/test';
import { smallJob } from '@fleet-rail/fuzz/small-job';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { fill, goTo } from './support/desk.js';
import { startServer, type OwnServer } from './support/own-server.js';
import { expect, test } from './support/test.js';

// A library of their own, which they change one after the other: every other test would see it.
test.describe.configure({ mode: 'serial' });

let data: string;
let server: OwnServer;
let page: Page;

test.beforeAll(async ({ browser }) => {
  data = mkdtempSync(join(tmpdir(), 'fleet-rail-library-'));
  server = await startServer(data);
  page = await (await browser.newContext()).newPage();
});
test.afterAll(async () => {
  await page.context().close();
  await server.kill();
  rmSync(data, { recursive: true });
});

const OWN = { 'X-Fleet-Rail': 'test' };

async function cards(request: APIRequestContext, which = ''): Promise<{ id: string; name: string }[]> {
  return (await (await request.get(`${server.url}/api/shots${which}`)).json()) as {
    id: string;
    name: string;
  }[];
}

async function deleteShot(name: string): Promise<void> {
  await page.getByRole('button', { name: `More for ${name}` }).click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await expect(page.getByRole('status').filter({ hasText: `Deleted "${name}".` })).toBeVisible();
}

test('a backup is restored with its progress, and a broken one changes nothing', async ({ request }) => {
  const whole = await (await request.get(`${server.url}/api/library/backup`)).body();
  const before = await cards(request);
  await page.goto(server.url);
  const restore = async (name: string, buffer: Buffer) => {
    const chooser = page.waitForEvent('filechooser');
    await page.getByRole('button', { name: 'Restore a backup' }).click();
    await (await chooser).setFiles({ name, mimeType: 'application/zip', buffer });
  };
  const files = unzipSync(whole);
  const index = JSON.parse(Buffer.from(files['library.json']).toString()) as {
    shots: { revision: number }[];
  };
  index.shots[1].revision = -5;
  await restore(
    'broken.zip',
    Buffer.from(zipSync({ ...files, 'library.json': strToU8(JSON.stringify(index)) })),
  );
  await expect(page.getByRole('alert').filter({ hasText: 'shots[1].revision: found -5' })).toContainText(
    'Nothing was changed.',
  );
  expect(await cards(request)).toEqual(before);
  await page.getByRole('button', { name: 'Close message' }).click();
  await request.delete(`${server.url}/api/shots/${before[0].id}`, { headers: OWN });
  await request.delete(`${server.url}/api/bin`, { headers: OWN });
  await restore('whole.zip', Buffer.from(whole));
  await expect(page.getByRole('progressbar', { name: 'Restoring' })).toBeVisible();
  await expect(page.getByText(/^Restored 1 shot, 0 checkpoints, 0 models\./)).toBeVisible();
  expect((await cards(request)).map(({ name }) => name).sort()).toEqual(
    before.map(({ name }) => name).sort(),
  );
  // Long enough to be cancelled: documents that compress to next to nothing are refused, so these differ.
  const many = Array.from({ length: 3000 }, (_, i) => `m${i}`);
  const dated = { revision: 1, createdAt: '2026-01-01T00:00:00.000Z', updatedAt: '2026-01-01T00:00:00.000Z' };
  const document = { format: 'fleet-rail-shot', version: 2 };
  const large = zipSync({
    'library.json': strToU8(
      JSON.stringify({
        format: 'fleet-rail-library',
        version: 1,
        shots: many.map((id) => ({ ...dated, id, name: id, deletedAt: null })),
        checkpoints: [],
        models: [],
      }),
    ),
    ...Object.fromEntries(
      many.map((id) => [`shots/${id}.json`, strToU8(JSON.stringify({ ...document, name: id }))]),
    ),
  });
  await restore('large.zip', Buffer.from(large));
  await page.getByRole('button', { name: 'Cancel restore' }).click();
  await expect(page.getByText(/cancelled\. Nothing was changed\./i)).toBeVisible();
  expect(await cards(request)).toHaveLength(before.length);
});

test('a deleted shot is deleted for good, alone or with all others, and its room is free', async ({
  request,
}) => {
  const [first] = await cards(request);
  for (let n = 0; n < 40; n++)
    await request.post(`${server.url}/api/shots/${first.id}/checkpoints`, {
      data: { name: `${n}` },
      headers: OWN,
    });
  await page.goto(server.url);
  const names = (await cards(request)).map(({ name }) => name);
  for (const name of names.slice(0, 3)) await deleteShot(name);
  await page.getByRole('button', { name: 'Deleted (3)' }).click();
  const list = page.getByRole('list', { name: 'Deleted shots' });
  await expect(list.getByText('30 days left')).toHaveCount(3);
  await list.getByRole('button', { name: `Delete ${names[1]} for good` }).click();
  const dialog = page.getByRole('dialog', { name: `Delete "${names[1]}" for good?` });
  await dialog.getByRole('button', { name: 'Cancel' }).click();
  expect(await cards(request, '/deleted')).toHaveLength(3);
  await list.getByRole('button', { name: `Delete ${names[1]} for good` }).click();
  await dialog.getByRole('button', { name: 'Delete for good' }).click();
  await expect(page.getByText(/^Deleted for good: 1 shot, 0 checkpoints/)).toBeVisible();
  await expect(list.getByRole('listitem')).toHaveCount(2);
  await page.getByRole('button', { name: 'Empty the bin' }).click();
  await page.getByRole('button', { name: 'Delete for good' }).click();
  await expect(page.getByText(/^Deleted for good: 2 shots, 40 checkpoints/)).toBeVisible();
  await expect(list).toBeHidden();
  expect(await cards(request, '/deleted')).toEqual([]);
  expect((await cards(request)).map(({ name }) => name)).toEqual(names.slice(3));
  // Models shipped with the application stay, whoever used them.
  const models = (await (await request.get(`${server.url}/api/models`)).json()) as unknown[];
  expect(models).toHaveLength(readdirSync(join(data, 'models')).length);
});

test('a backup comes without a model file that is lost, and the page says which', async ({ request }) => {
  const whole = await (await request.get(`${server.url}/api/library/backup`)).body();
  const models = (await (await request.get(`${server.url}/api/models`)).json()) as {
    fileName: string;
  }[];
  const sizes = readdirSync(join(data, 'models')).map((name) => ({
    name,
    size: statSync(join(data, 'models', name)).size,
  }));
  const lamp = unzipSync(whole);
  const index = JSON.parse(Buffer.from(lamp['library.json']).toString()) as {
    models: { fileName: string; sha256: string }[];
  };
  const lost = index.models.find(({ fileName }) => fileName === 'lamp.glb')?.sha256 ?? '';
  expect(sizes.map(({ name }) => name)).toContain(lost);
  rmSync(join(data, 'models', lost));
  await page.goto(server.url);
  await expect(page.getByRole('alert')).toContainText('1 model file is missing: lamp.glb');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Back up everything' }).click();
  const files = unzipSync(readFileSync(await (await download).path()));
  await expect(page.getByText(/^Backed up\. 1 model file is missing: lamp\.glb/)).toBeVisible();
  const packed = Object.keys(files).filter((name) => name.startsWith('models/'));
  expect(packed).toHaveLength(models.length - 1);
  expect(Buffer.from(files['library.json']).toString()).toContain('The model file lamp.glb is missing.');
});

test('a desk that is left in the middle of a film says so, and the desk of another shot goes on with it', async ({
  request,
}) => {
  const riders = [{ id: 'r', name: 'Box', badge: 'B1', attachment: { path: 'p' } }];
  const points = [{ position: [-6, 0, 0] }, { position: [6, 0, 0] }];
  const paths = [{ id: 'p', name: 'P', basis: 'polyline', points }];
  const format = { format: 'fleet-rail-shot', version: 2 };
  const document = { ...format, name: 'Passing', range: { first: 1, last: 1200 }, paths, riders };
  const idOf = async (data: object) =>
    ((await (await request.post(`${server.url}/api/shots`, { data })).json()) as { id: string }).id;
  const [passing, other] = [await idOf({ document }), await idOf({ name: 'Other' })];
  await page.goto(`${server.url}/shots/${passing}/hand-over`);
  const section = page.getByRole('region', { name: 'Pictures and video' });
  await section.getByRole('button', { name: /Format$/ }).click();
  await page.getByRole('option', { name: 'WebM film', exact: true }).click();
  await section.getByRole('button', { name: /Size$/ }).click();
  await page.getByRole('option', { name: 'Another size' }).click();
  await fill(page, 'Width', '320');
  await fill(page, 'Height', '180');
  await section.getByRole('button', { name: 'Make the film', exact: true }).click();
  await expect(section.getByText(/^Picture \d+ of 1200/)).toBeVisible();
  const farewell = page.getByRole('status').filter({ hasText: 'is not finished' });
  await goTo(page, 'Path');
  await expect(farewell).toBeHidden();
  await page.getByRole('link', { name: 'All shots' }).click();
  await expect(farewell).toContainText(
    '“Passing.webm” is not finished. It continues when you return, or in another renderer.',
  );
  await expect(farewell.getByRole('button', { name: 'Open the render pool' })).toBeVisible();
  await page.goto(`${server.url}/shots/${other}/path`);
  await expect(page.getByRole('heading', { name: 'Other', level: 1 })).toBeVisible();
  const film = async () => {
    const { jobs } = (await (await request.get(`${server.url}/api/pool`)).json()) as {
      jobs: { id: string; drawn: number }[];
    };
    return jobs[0];
  };
  const { id, drawn } = await film();
  await expect(async () => expect((await film()).drawn).toBeGreaterThan(drawn + 24)).toPass();
  await request.delete(`${server.url}/api/pool/jobs/${id}`, { headers: OWN });
});

test('a run that fails again and again is paused with its reason, and tried again from the pool', async ({
  request,
}) => {
  // A desk that is still open would take runs for itself.
  await page.goto(`${server.url}/pool`);
  const api = `${server.url}/api/pool`;
  const added = await request.post(`${api}/jobs`, { data: smallJob(8) });
  expect(added.status()).toBe(201);
  const self = { id: '6f1c1a7e-0000-4000-8000-000000000001', name: 'Window', kind: 'window' };
  for (let lost = 0; lost < 10; lost++) {
    const claimed = await request.post(`${api}/claim`, { data: self });
    const { run } = (await claimed.json()) as { run: string };
    const problem = { renderer: self.id, problem: 'the graphics were lost.', final: false };
    await request.post(`${api}/batches/${run}/failed`, { data: problem });
  }
  await page.goto(`${server.url}/pool`);
  const job = page.getByRole('listitem', { name: 'Far.zip' });
  await expect(job.getByRole('alert')).toHaveText(
    'Pictures 1 to 4 failed 5 times. Last reason: the graphics were lost.',
  );
  await expect(job.getByLabel('Pictures 5 to 8: paused; lost 5 times')).toBeVisible();
  await job.getByRole('button', { name: 'Try Far.zip again' }).click();
  await expect(job.getByRole('alert')).toBeHidden();
  await expect(job.getByLabel('Pictures 1 to 4: waits')).toBeVisible();
});
