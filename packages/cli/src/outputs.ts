import { lstat, realpath, stat } from 'node:fs/promises';
import { basename, dirname, join, resolve } from 'node:path';
import type { Shot } from '@fleet-rail/core';
import { reasonOf } from './file-errors.js';
import { makeFolder, namedFiles, writeWhole } from './files.js';
import { UsageError, type Arguments } from './options.js';
import { noteWritten, wasWrittenFor } from './written-files.js';

/** The flag of every command that writes. */
export const FORCE = 'force';

type Content = string | Uint8Array | Iterable<string | Uint8Array>;

/**
 * Files that a command writes. It never overwrites a file that it reads or that the shot uses, nor anything but a
 * regular file; an existing file is replaced with `--force`, or if this program wrote it for the same shot and nobody
 * changed it.
 */
export class Outputs {
  private constructor(
    private readonly shotFile: string,
    private readonly inputs: ReadonlyMap<string, string>,
    private readonly force: boolean,
  ) {}

  /**
   * @param shotFile the shot that is written for
   * @param inputs   files that are read or used, by path, each with what it is
   */
  static async of(args: Arguments, shotFile: string, inputs: ReadonlyMap<string, string>): Promise<Outputs> {
    const known = new Map<string, string>();
    for (const [path, what] of inputs) {
      const id = await identityOf(path);
      if (id !== null) known.set(id, what);
    }
    return new Outputs(shotFile, known, args.flag(FORCE));
  }

  /** The outputs of a command that reads a shot: it and the files of its models are not written over. */
  static async ofShot(args: Arguments, shot: Shot, shotFile: string): Promise<Outputs> {
    return Outputs.of(args, shotFile, await filesOfShot(shot, shotFile));
  }

  /**
   * Makes sure that files may be written, before any work is done for them.
   *
   * @throws UsageError with the first that may not, and why
   */
  async check(...paths: readonly string[]): Promise<void> {
    for (const path of paths) await this.checkOne(path);
  }

  /** Writes a file whole or not at all, where it may. */
  async write(path: string, content: Content): Promise<void> {
    await this.check(path);
    await writeWhole(path, content);
    await noteWritten(path, this.shotFile);
  }

  private async checkOne(path: string): Promise<void> {
    const found = await lstat(path).catch((error: NodeJS.ErrnoException) => {
      if (error.code === 'ENOENT') return null;
      throw new UsageError(`${path}: cannot be written: ${reasonOf(error)}`);
    });
    if (found === null) return;
    if (!found.isFile()) {
      const kind = found.isSymbolicLink()
        ? 'a link'
        : found.isDirectory()
          ? 'a folder'
          : 'a device or a pipe';
      throw new UsageError(`${path}: found ${kind}; expected a new name or a regular file`);
    }
    const used = this.inputs.get((await identityOf(path)) ?? '');
    if (used !== undefined) throw new UsageError(`${path}: is ${used}; expected another name`);
    if (this.force || (await wasWrittenFor(path, this.shotFile))) return;
    throw new UsageError(`${path}: already exists; expected a new name, or --${FORCE} to replace it`);
  }
}

/** Makes a folder for outputs; it may be there, and may be a link to one. */
export async function outputFolder(path: string): Promise<void> {
  const found = await stat(path).catch(() => null);
  if (found !== null && !found.isDirectory())
    throw new UsageError(`${path}: found a file; expected a folder, or a new name`);
  if (found === null) await makeFolder(path);
}

/** One and the same for all names of a file; null where there is none. */
async function identityOf(path: string): Promise<string | null> {
  try {
    const { dev, ino } = await stat(await realpath(path));
    return `${dev} ${ino}`;
  } catch {
    return null;
  }
}

async function filesOfShot(shot: Shot, shotFile: string): Promise<Map<string, string>> {
  const files = new Map([[shotFile, 'the shot file itself']]);
  for (const { name, source } of shot.models) {
    if (source.file === undefined) continue;
    const path = join(dirname(shotFile), source.file);
    files.set(path, `the file of the model "${name}"`);
    for (const other of await namedFiles(path))
      files.set(join(dirname(path), other), `a file that ${basename(path)} needs`);
  }
  return files;
}

/** The files that a model is read from, as inputs. */
export async function modelInputs(path: string): Promise<[string, string][]> {
  const others = await namedFiles(path);
  return [
    [path, 'the file of the model'],
    ...others.map((other): [string, string] => [
      join(dirname(resolve(path)), other),
      `a file that ${basename(path)} needs`,
    ]),
  ];
}
