import { spawn, type ChildProcess } from 'node:child_process';
import { fileURLToPath } from 'node:url';

const SCRIPT = `
import { EventEmitter } from 'node:events';
import express from 'express';
import { catchWhatNobodyDoes, rememberRequest } from './dist/http/last-resort.js';
const app = express();
app.use(rememberRequest);
app.get('/event', () => setImmediate(() => new EventEmitter().emit('error', new Error('Nobody listens.'))));
app.get('/promise', (_, response) => { void Promise.reject(new Error('Nobody waits.')); response.json({}); });
app.get('/well', (_, response) => response.json({}));
catchWhatNobodyDoes();
const server = app.listen(0, '127.0.0.1', () => console.log('at', server.address().port));
`;

let server: ChildProcess;
let base: string;
let said = '';

beforeAll(async () => {
  server = spawn(process.execPath, ['--input-type=module', '-e', SCRIPT], {
    cwd: fileURLToPath(new URL('../..', import.meta.url)),
  });
  const hear = (text: Buffer) => (said += String(text));
  server.stderr?.on('data', hear);
  base = await new Promise((resolve) => {
    server.stdout?.on('data', (text: Buffer) => {
      hear(text);
      const port = /at (\d+)/.exec(said)?.[1];
      if (port) resolve(`http://127.0.0.1:${port}`);
    });
  });
});
afterAll(() => void server.kill());

it('an event that nobody listens to is logged, answers its own request with 500, and ends nothing', async () => {
  const answer = await fetch(`${base}/event`);
  expect(answer.status).toBe(500);
  expect(await answer.json()).toMatchObject({ message: expect.stringContaining('Nothing was changed') });
  expect((await fetch(`${base}/promise`)).status).toBe(200);
  expect((await fetch(`${base}/well`)).status).toBe(200);
  expect(server.exitCode).toBeNull();
  expect(said).toContain('Nobody listens.');
  expect(said).toContain('Nobody waits.');
});
