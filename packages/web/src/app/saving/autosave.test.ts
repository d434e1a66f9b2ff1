import { jest } from '@jest/globals';
import { newShot, type Shot } from '@fleet-rail/core';

const drafts: Record<string, unknown[]> = { kept: [], dropped: [] };
jest.unstable_mockModule('./drafts', () => ({
  keepDraft: async (id: string, revision: number, shot: Shot) => drafts.kept.push([id, revision, shot.name]),
  dropDraft: async (id: string) => drafts.dropped.push(id),
}));
const { Autosave } = await import('./autosave');
const { createDesk } = await import('../../state/desk-store');
const { holdPending } = await import('../../commands/pending-edits');

const start = newShot({ name: 'zero' });
let desk: ReturnType<typeof createDesk>;
let autosave: InstanceType<typeof Autosave>;
/** Requests sent to the server, and its next answers. */
let sent: { revision: number; document: Shot; save: string }[];
let answers: (() => Promise<Response>)[];

const json = (status: number, body: object) => () =>
  Promise.resolve(new Response(JSON.stringify(body), { status }));
const taken = (revision: number) => json(200, { revision });
const rename = (name: string) => desk.getState().edit('Rename', (shot) => ({ ...shot, name }));
const kind = () => autosave.state.getState().kind;
/** Advances the time by milliseconds. */
const pass = (ms: number) => jest.advanceTimersByTimeAsync(ms);

beforeEach(() => {
  jest.useFakeTimers();
  sent = [];
  answers = [];
  drafts.kept = [];
  drafts.dropped = [];
  globalThis.fetch = ((_: string, init: RequestInit) => {
    sent.push(JSON.parse(init.body as string) as (typeof sent)[number]);
    const answer = answers.shift();
    return answer ? answer() : Promise.reject(new TypeError('no network'));
  }) as typeof fetch;
  desk = createDesk(start);
  autosave = new Autosave('shot', desk, { revision: 1, document: start });
});
afterEach(() => {
  autosave.close(false);
  jest.useRealTimers();
});

it('edits that come close together are one save, based on the last revision', async () => {
  answers = [taken(2), taken(3)];
  rename('one');
  rename('two');
  expect(kind()).toBe('unsaved');
  await pass(1000);
  expect(kind()).toBe('saved');
  rename('three');
  await pass(1000);
  expect(sent.map(({ revision, document }) => [revision, document.name])).toEqual([
    [1, 'two'],
    [2, 'three'],
  ]);
});

it('an edit made while a save is under way is saved after it, on its revision', async () => {
  let finish: (response: Response) => void = () => undefined;
  answers = [() => new Promise((resolve) => (finish = resolve)), taken(3)];
  rename('one');
  await pass(600);
  expect(kind()).toBe('saving');
  rename('two');
  finish(new Response(JSON.stringify({ revision: 2 }), { status: 200 }));
  await pass(1000);
  expect(sent.map(({ revision, document }) => [revision, document.name])).toEqual([
    [1, 'one'],
    [2, 'two'],
  ]);
  expect(kind()).toBe('saved');
});

it('every edit is a draft until the server has it', async () => {
  answers = [taken(2)];
  rename('one');
  expect(drafts.kept).toEqual([['shot', 1, 'one']]);
  expect(drafts.dropped).toEqual([]);
  await pass(1000);
  expect(drafts.dropped).toEqual(['shot']);
});

it('without the server it waits, tries again by itself, and then has saved', async () => {
  rename('one');
  await pass(600);
  expect(autosave.state.getState()).toMatchObject({
    kind: 'waiting',
    message: expect.stringMatching(/does not answer/),
  });
  expect(drafts.dropped).toEqual([]);
  answers = [taken(2)];
  await pass(3100);
  expect(kind()).toBe('saved');
  expect(sent).toHaveLength(2);
});

it('a save whose answer was lost is sent again under its own name, and only then what came after it', async () => {
  rename('one');
  await pass(600);
  expect(kind()).toBe('waiting');
  rename('two');
  answers = [taken(2), taken(3)];
  await pass(3100);
  expect(sent.map(({ revision, document, save }) => [revision, document.name, save])).toEqual([
    [1, 'one', sent[0].save],
    [1, 'one', sent[0].save],
    [2, 'two', sent[2].save],
  ]);
  expect(sent[2].save).not.toBe(sent[0].save);
  expect(kind()).toBe('saved');
});

it('a tab that is come back to knows its own save, and does not call it a conflict', async () => {
  rename('one');
  await pass(600);
  const [{ save }] = sent;
  rename('two');
  globalThis.fetch = (async (_: string, init: RequestInit) => {
    const body = init.method === 'GET' ? { revision: 2, document: start, save } : { revision: 3 };
    return new Response(JSON.stringify(body));
  }) as typeof fetch;
  await autosave.lookForNewer();
  expect(autosave.basedOn).toBe(2);
  await pass(100);
  expect([kind(), autosave.basedOn]).toEqual(['saved', 3]);
});

it('a save that hangs is told of after some seconds', async () => {
  answers = [() => new Promise(() => undefined)];
  rename('one');
  await pass(600);
  expect(kind()).toBe('saving');
  await pass(5_000);
  expect(kind()).toBe('slow');
});

it('after a conflict nothing more is sent, and edits are still kept as a draft', async () => {
  answers = [json(409, { message: 'saved elsewhere' })];
  rename('mine');
  await pass(600);
  expect(autosave.state.getState()).toEqual({ kind: 'conflict', message: 'saved elsewhere' });
  rename('mine still');
  await pass(10_000);
  expect(sent).toHaveLength(1);
  expect(kind()).toBe('conflict');
  expect(drafts.kept.at(-1)).toEqual(['shot', 1, 'mine still']);
  await expect(autosave.flush()).rejects.toThrow('saved elsewhere');
});

it('taking the saved shot goes on from its revision, with mine one undo away', async () => {
  answers = [json(409, { message: 'saved elsewhere' })];
  rename('mine');
  await pass(600);
  const theirs = { ...start, name: 'theirs' };
  globalThis.fetch = (async () =>
    new Response(JSON.stringify({ revision: 7, document: theirs }))) as typeof fetch;
  await autosave.takeSaved();
  expect([kind(), autosave.basedOn, desk.getState().shot.name]).toEqual(['saved', 7, 'theirs']);
  desk.getState().undo();
  expect(desk.getState().shot.name).toBe('mine');
  expect(kind()).toBe('unsaved');
});

it('what the server refuses is said, and the next edit is tried', async () => {
  answers = [json(422, { message: 'fps: found 0' }), taken(2)];
  rename('bad');
  await pass(600);
  expect(autosave.state.getState()).toEqual({ kind: 'refused', message: 'fps: found 0' });
  rename('good');
  await pass(600);
  expect(kind()).toBe('saved');
});

it('a tab that is come back to goes on from a newer save, or says so where it has edits of its own', async () => {
  const newer = { ...start, name: 'newer' };
  const serve = (revision: number) => {
    globalThis.fetch = (async () =>
      new Response(JSON.stringify({ revision, document: newer }))) as typeof fetch;
  };
  serve(1);
  await autosave.lookForNewer();
  expect(desk.getState().shot.name).toBe('zero');
  serve(4);
  await autosave.lookForNewer();
  expect([desk.getState().shot.name, autosave.basedOn, kind()]).toEqual(['newer', 4, 'saved']);
  rename('mine');
  serve(5);
  await autosave.lookForNewer();
  expect([desk.getState().shot.name, kind()]).toEqual(['mine', 'conflict']);
});

it('a shot that was deleted elsewhere can only go on as a copy', async () => {
  answers = [json(404, { message: 'There is no shot "shot", or it was deleted.' })];
  rename('orphan');
  await pass(600);
  expect(autosave.state.getState()).toMatchObject({
    kind: 'conflict',
    message: expect.stringMatching(/deleted/),
  });
});

it('undoing back to what is saved has nothing to send', async () => {
  rename('one');
  desk.getState().undo();
  expect(kind()).toBe('saved');
  await pass(1000);
  expect(sent).toEqual([]);
});

it('leaving the desk sends what is not saved yet', async () => {
  answers = [taken(2)];
  rename('last words');
  autosave.close(true);
  await pass(10);
  expect(sent.map(({ document }) => document.name)).toEqual(['last words']);
});

it('an edit that the worker has not answered yet is waited for, also where the desk is left', async () => {
  answers = [taken(2), taken(3)];
  const edits: (() => void)[] = [];
  const ask = (name: string) =>
    holdPending(desk, new Promise<void>((done) => edits.push(() => (rename(name), done()))));
  ask('detached');
  const flushed = autosave.flush();
  await pass(10_000);
  expect(sent).toEqual([]);
  edits[0]();
  await flushed;
  expect(sent.map(({ document }) => document.name)).toEqual(['detached']);

  ask('deleted');
  autosave.close(true);
  await pass(10_000);
  edits[1]();
  await pass(0);
  expect(sent.map(({ document }) => document.name)).toEqual(['detached', 'deleted']);
});
