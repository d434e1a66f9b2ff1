import { brotliCompressSync, gzipSync } from 'node:zlib';
import { request as http } from 'node:http';
import type { APIRequestContext } from '@playwright/test';
import { expect, test } from './support/test.js';

/** Requests that a page of another site cannot send. */
const OWN = { 'X-Fleet-Rail': '1' };
const document = { format: 'fleet-rail-shot', version: 2, name: 'Over the wire' };
const make = async (request: APIRequestContext) =>
  (await (await request.post('/api/shots', { data: { document } })).json()) as {
    id: string;
    revision: number;
  };

/** A bare request, with whatever headers a foreign page would send. */
function statusWith(baseURL: string, headers: Record<string, string>): Promise<number> {
  return new Promise((resolve, reject) => {
    http(`${baseURL}/api/shots`, { headers }, (response) => {
      response.resume();
      resolve(response.statusCode ?? 0);
    })
      .on('error', reject)
      .end();
  });
}

test('only its own host and origin are answered', async ({ baseURL }) => {
  const base = baseURL as string;
  const port = new URL(base).port;
  expect(await statusWith(base, {})).toBe(200);
  expect(await statusWith(base, { Host: `localhost:${port}`, Origin: `http://localhost:${port}` })).toBe(200);
  expect(await statusWith(base, { Host: 'evil.example' })).toBe(403);
  expect(await statusWith(base, { Host: `evil.example:${port}` })).toBe(403);
  expect(await statusWith(base, { Origin: 'http://evil.example' })).toBe(403);
  expect(await statusWith(base, { Origin: `http://127.0.0.1:${Number(port) + 1}` })).toBe(403);
  expect(await statusWith(base, { Origin: 'null' })).toBe(403);
});

test('answers carry the headers of a closed house, and the API has a page', async ({ request }) => {
  const { headers } = { headers: (await request.get('/')).headers() };
  expect(headers['content-security-policy']).toContain("default-src 'self'");
  expect(headers['x-content-type-options']).toBe('nosniff');
  expect(headers['x-powered-by']).toBeUndefined();
  // A connection rests for longer than one looks at a screen.
  expect(Number(/timeout=(\d+)/.exec(headers['keep-alive'])?.[1])).toBeGreaterThan(60);
  expect((await request.get('/api/docs')).status()).toBe(200);
  const api = (await (await request.get('/api/docs-json')).json()) as { paths: object };
  expect(Object.keys(api.paths)).toContain('/api/shots/{id}');
});

test('a stale save is refused with the newest revision, and changes nothing', async ({ request }) => {
  const { id, revision } = await make(request);
  const save = (based: number, name: string) =>
    request.put(`/api/shots/${id}`, { data: { revision: based, document: { ...document, name } } });
  expect((await save(revision, 'first')).status()).toBe(200);
  const stale = await save(revision, 'second');
  expect(stale.status()).toBe(409);
  expect(await stale.json()).toMatchObject({
    revision: revision + 1,
    message: expect.stringContaining('saved in another window'),
  });
  expect(await (await request.get(`/api/shots/${id}`)).json()).toMatchObject({
    name: 'first',
    revision: revision + 1,
  });
});

test('bad requests get a sentence and a fitting status', async ({ request }) => {
  const { id } = await make(request);
  const put = (data: unknown) => request.put(`/api/shots/${id}`, { data });
  const cases: [Promise<import('@playwright/test').APIResponse>, number, RegExp][] = [
    [
      put({ revision: 1, document: { ...document, fps: 'fast' } }),
      422,
      /fps: found "fast"; expected a number/,
    ],
    [put({ revision: 1, document: { ...document, wings: 2 } }), 422, /wings: found an unknown key/],
    [put({ document }), 400, /revision must/],
    [put({ revision: 1 }), 400, /document must be an object/],
    [put({ revision: 1, document, extra: 1 }), 400, /extra should not exist/],
    [request.get('/api/shots/nowhere'), 404, /There is no shot "nowhere"/],
    [request.delete('/api/shots/nowhere', { headers: OWN }), 404, /There is no shot/],
    [request.delete('/api/shots/nowhere'), 403, /A change needs an Origin/],
    [request.post('/api/shots', { data: { name: ' ' } }), 400, /name has to hold something/],
    [request.post('/api/shots', { data: { name: 'a\u0000b' } }), 400, /name has to hold something/],
    [request.get('/api/models/nowhere/file'), 404, /There is no model "nowhere"/],
    [request.get('/api/nothing'), 404, /Cannot GET/],
    [request.post('/api/models', { data: {} }), 400, /Expected a \.glb or \.gltf file/],
    [
      request.post('/api/shots', {
        headers: { 'content-type': 'application/json' },
        data: Buffer.from('{"name":'),
      }),
      400,
      /JSON/,
    ],
    ...['null', '[]', '7'].map((text): [Promise<import('@playwright/test').APIResponse>, number, RegExp] => [
      request.post('/api/shots', {
        headers: { 'content-type': 'application/json' },
        data: Buffer.from(text),
      }),
      400,
      /not a JSON object/,
    ]),
  ];
  for (const [waiting, status, message] of cases) {
    const response = await waiting;
    expect(response.status()).toBe(status);
    const body = (await response.json()) as { message: string | string[] };
    expect([body.message].flat().join(' ')).toMatch(message);
  }
  expect(await (await request.get(`/api/shots/${id}`)).json()).toMatchObject({ revision: 1 });
});

test('bodies that are compressed, nested without end or full of keys are refused before they are parsed', async ({
  request,
}) => {
  const post = (data: Buffer, headers = {}) =>
    request.post('/api/shots', { headers: { 'content-type': 'application/json', ...headers }, data });
  const flood = Buffer.from(`{${Array.from({ length: 10_001 }, (_, i) => `"${i}":1`).join(',')}}`);
  const values = Buffer.from(`[${'1,'.repeat(24e6)}1]`);
  const cases: [Promise<import('@playwright/test').APIResponse>, number, RegExp][] = [
    [
      post(brotliCompressSync(Buffer.from('{"name":"A"}')), { 'content-encoding': 'br' }),
      415,
      /Content-Encoding: found "br"/,
    ],
    [post(gzipSync(Buffer.from('{"name":"A"}')), { 'content-encoding': 'gzip' }), 415, /not compressed/],
    [post(flood), 413, /over 10000 different keys/],
    [post(values), 413, /over 24 million values/],
    [post(Buffer.from('['.repeat(100))), 413, /nested over 64 deep/],
  ];
  for (const [waiting, status, message] of cases) {
    const response = await waiting;
    expect(response.status()).toBe(status);
    expect(((await response.json()) as { message: string }).message).toMatch(message);
  }
});

test('a document of megabytes is read in a thread and is the same as a small one', async ({ request }) => {
  const points = Array.from({ length: 900 }, (_, i) => ({ position: [i / 7, 0, i / 3] }));
  const paths = Array.from({ length: 12 }, (_, n) => ({ id: `p${n}`, name: `P ${n}`, points }));
  const models = [{ id: 'm', name: 'No "such"', source: { file: 'no "such".glb' } }];
  const large = { ...document, name: 'large', paths, models };
  expect(JSON.stringify(large).length).toBeLessThan(2 ** 20);
  const padded = Buffer.from(JSON.stringify({ document: large }) + ' '.repeat(2 ** 20));
  const post = (data: Buffer) =>
    request.post('/api/shots', { headers: { 'content-type': 'application/json' }, data });
  const [small, big] = [await post(Buffer.from(JSON.stringify({ document: large }))), await post(padded)];
  expect([small.status(), big.status()]).toEqual([201, 201]);
  const [one, other] = [await small.json(), await big.json()] as { id: string; document: object }[];
  expect(other.document).toEqual(one.document);
  const wrong = {
    ...large,
    paths: [...paths, { ...paths[0], id: 'q', points: [{ position: [0, 'x', 0] }] }],
  };
  const refused = await request.put(`/api/shots/${other.id}`, {
    headers: { 'content-type': 'application/json' },
    data: Buffer.from(JSON.stringify({ revision: 1, document: wrong }) + ' '.repeat(2 ** 20)),
  });
  expect(refused.status()).toBe(422);
  expect(await refused.json()).toMatchObject({ path: 'paths[12].points[0].position' });
  expect(await (await request.get(`/api/shots/${other.id}`)).json()).toMatchObject({ revision: 1 });
});

test('a model over 64 MB is refused before it is read', async ({ request }) => {
  const file = {
    name: 'huge.glb',
    mimeType: 'model/gltf-binary',
    buffer: Buffer.alloc(64 * 1024 * 1024 + 1),
  };
  const response = await request.post('/api/models', { multipart: { file }, headers: OWN });
  expect(response.status()).toBe(413);
  // Many that are small enough each are refused by their size together.
  const many = new FormData();
  for (let n = 0; n < 5; n++) many.append('file', new Blob([Buffer.alloc(20 * 1024 * 1024)]), `part${n}.bin`);
  const together = await request.post('/api/models', { multipart: many, headers: OWN });
  expect(together.status()).toBe(413);
  expect(await together.json()).toMatchObject({ message: 'The body has 101 MB; expected at most 64 MB.' });
});

test('a bake of too much is refused with the figures', async ({ request }) => {
  const riders = Array.from({ length: 200 }, (_, i) => ({
    id: `r${i}`,
    name: `R ${i}`,
    attachment: { path: 'p' },
  }));
  const points = [
    [0, 0, 0],
    [0, 0, 9],
  ].map((position) => ({ position }));
  const big = {
    ...document,
    range: { first: 1, last: 100_000 },
    paths: [{ id: 'p', name: 'P', points }],
    riders,
  };
  const { id } = (await (await request.post('/api/shots', { data: { document: big } })).json()) as {
    id: string;
  };
  const response = await request.get(`/api/shots/${id}/files/csv`);
  expect(response.status()).toBe(422);
  expect(((await response.json()) as { message: string }).message).toContain(
    '200 moving riders for 100000 frames',
  );
});
