import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { FolderInUse, FolderLock } from './folder-lock.js';

let folder: string;
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'fleet-rail-lock-'))));
afterEach(() => rmSync(folder, { recursive: true }));

it('a folder has one server at a time, and the second is told where the first is', () => {
  const first = FolderLock.take(folder);
  expect(() => FolderLock.take(folder)).toThrow(FolderInUse);
  first.note('http://127.0.0.1:4170/');
  expect(() => FolderLock.take(folder)).toThrow(
    `Another Fleet Rail server (http://127.0.0.1:4170/) uses the folder ${folder}. Close it, or set FLEET_RAIL_DATA to another folder.`,
  );
  first.onApplicationShutdown();
  FolderLock.take(folder).onApplicationShutdown();
  expect(readdirSync(folder)).toEqual(['server.lock']);
});

it('a server that was killed leaves the folder free', async () => {
  const script = `
    import { FolderLock } from './dist/database/folder-lock.js';
    FolderLock.take(process.argv[1]);
    console.log('has it');
    setInterval(() => undefined, 1000);`;
  const other = spawn(process.execPath, ['--input-type=module', '-e', script, folder], {
    cwd: fileURLToPath(new URL('../..', import.meta.url)),
  });
  await once(other.stdout, 'data');
  expect(() => FolderLock.take(folder)).toThrow(FolderInUse);
  other.kill('SIGKILL');
  await once(other, 'exit');
  FolderLock.take(folder).onApplicationShutdown();
});
