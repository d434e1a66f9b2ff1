import { createHash } from 'node:crypto';
import { readFile, readdir, rm, writeFile } from 'node:fs/promises';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { Inject, Injectable } from '@nestjs/common';
import { writeWhole } from '../files/write-whole.js';
import { SETTINGS } from '../settings.token.js';
import type { Settings } from '../settings.js';

const folderIn = (dataFolder: string): string => join(dataFolder, 'models');

/** The path of a model's bytes. */
export const modelPath = (dataFolder: string, sha256: string): string => join(folderIn(dataFolder), sha256);

/** The bytes of models, in files named by their SHA-256, so that equal models are kept once. */
@Injectable()
export class ModelFiles {
  private readonly folder: string;

  constructor(@Inject(SETTINGS) settings: Settings) {
    this.folder = folderIn(settings.dataFolder);
  }

  /** Stores bytes whole or not at all, and gives their digest. */
  async put(bytes: Uint8Array): Promise<string> {
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    const path = this.pathOf(sha256);
    if (existsSync(path)) return sha256;
    await writeWhole(path, (partial) => writeFile(partial, bytes));
    return sha256;
  }

  /** Deletes what a crash left: files that were never whole, and those that no model is kept under. */
  async clean(kept: ReadonlySet<string>): Promise<void> {
    const names = existsSync(this.folder) ? await readdir(this.folder) : [];
    for (const name of names) if (!kept.has(name)) await rm(join(this.folder, name), { force: true });
  }

  async delete(sha256: string): Promise<void> {
    await rm(this.pathOf(sha256), { force: true });
  }

  read(sha256: string): Promise<Uint8Array> {
    return readFile(this.pathOf(sha256));
  }

  pathOf(sha256: string): string {
    return join(this.folder, sha256);
  }
}
