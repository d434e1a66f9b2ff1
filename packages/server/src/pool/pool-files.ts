import { createWriteStream, existsSync } from 'node:fs';
import { readdir, rm, stat, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { Inject, Injectable } from '@nestjs/common';
import { PARTIAL, writeWhole } from '../files/write-whole.js';
import { SETTINGS } from '../settings.token.js';
import type { Settings } from '../settings.js';

/** Drawn pictures, and the files they became, in a folder a job. */
@Injectable()
export class PoolFiles {
  private readonly folder: string;

  constructor(@Inject(SETTINGS) settings: Settings) {
    this.folder = join(settings.dataFolder, 'pictures');
  }

  picture(job: string, index: number): string {
    return join(this.folder, job, `${index}.png`);
  }

  file(job: string): string {
    return join(this.folder, job, 'file');
  }

  /** Stores a picture whole or not at all. */
  async putPicture(job: string, index: number, png: Buffer): Promise<void> {
    await writeWhole(this.picture(job, index), (path) => writeFile(path, png));
  }

  /**
   * Stores the joined file whole or not at all, and gives its size.
   *
   * @param check is given the file before it takes its place; where it throws, what was there stays
   */
  async putFile(
    job: string,
    content: NodeJS.ReadableStream,
    check: (path: string) => Promise<void>,
  ): Promise<number> {
    await writeWhole(this.file(job), async (path) => {
      await pipeline(content, createWriteStream(path));
      await check(path);
    });
    return (await stat(this.file(job))).size;
  }

  /** Deletes the pictures of a job that is whole, but one to be shown. A file that is still on its way ends by itself. */
  async dropPictures(job: string, kept: number): Promise<void> {
    for (const name of await readdir(join(this.folder, job)))
      if (name.endsWith('.png') && name !== `${kept}.png`)
        await rm(join(this.folder, job, name), { force: true });
  }

  async drop(job: string): Promise<void> {
    await rm(join(this.folder, job), { recursive: true, force: true });
  }

  /** Deletes what no job is kept for, and what was never whole. */
  async clean(jobs: ReadonlySet<string>): Promise<void> {
    if (!existsSync(this.folder)) return;
    for (const job of await readdir(this.folder)) {
      if (!jobs.has(job)) await this.drop(job);
      else
        for (const name of await readdir(join(this.folder, job)))
          if (name.endsWith(PARTIAL)) await rm(join(this.folder, job, name), { force: true });
    }
  }
}
