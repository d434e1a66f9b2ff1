import { createHash } from 'node:crypto';
import { mkdir, readFile, readdir, realpath, rm, stat, writeFile } from 'node:fs/promises';
import { homedir } from 'node:os';
import { basename, dirname, join } from 'node:path';

/** A note about a file that was written: for which shot, and how it was then. */
interface Written {
  readonly shot: string;
  readonly bytes: number;
  readonly changed: number;
}

/** Notes from which on old ones are deleted. */
const MANY = 500;
const KEPT_DAYS = 90;

/** Notes are kept beside this user's other state, and not among the files that are handed over. */
const folder = (): string =>
  join(process.env.XDG_STATE_HOME || join(homedir(), '.local', 'state'), 'fleet-rail', 'written');

/** Notes that a file was written for a shot. Where that fails, replacing the file needs --force. */
export async function noteWritten(path: string, shotFile: string): Promise<void> {
  try {
    const { size: bytes, mtimeMs: changed } = await stat(path);
    const note: Written = { shot: await placeOf(shotFile), bytes, changed };
    const at = await noteOf(path);
    await mkdir(dirname(at), { recursive: true });
    await writeFile(at, JSON.stringify(note));
    await forgetOld(dirname(at));
  } catch {
    return;
  }
}

/** Deletes old notes; replacing a file that lost its note needs --force. */
async function forgetOld(notes: string): Promise<void> {
  const names = await readdir(notes);
  if (names.length < MANY) return;
  const since = Date.now() - KEPT_DAYS * 86_400_000;
  for (const name of names)
    if ((await stat(join(notes, name))).mtimeMs < since) await rm(join(notes, name), { force: true });
}

/** Whether a file is as this program wrote it for the same shot. */
export async function wasWrittenFor(path: string, shotFile: string): Promise<boolean> {
  try {
    const { shot, bytes, changed } = JSON.parse(await readFile(await noteOf(path), 'utf8')) as Written;
    const now = await stat(path);
    return shot === (await placeOf(shotFile)) && bytes === now.size && changed === now.mtimeMs;
  } catch {
    return false;
  }
}

async function noteOf(path: string): Promise<string> {
  const digest = createHash('sha256')
    .update(await placeOf(path))
    .digest('hex');
  return join(folder(), `${digest}.json`);
}

/** A file's place without links in its folders; it need not be there. */
async function placeOf(path: string): Promise<string> {
  return join(await realpath(dirname(path)), basename(path));
}
