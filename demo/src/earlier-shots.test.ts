import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { brotliDecompressSync } from 'node:zlib';
import { evaluateShot, parseShot, type Shot } from '@fleet-rail/core';
import { assetsOf, writeCsv } from '@fleet-rail/core/formats';
import { barrelsShot } from './barrels-shot.js';
import { firstTryShot } from './first-try-shot.js';
import { liftShot } from './lift-shot.js';
import { documentsOf, orchardShot } from './orchard-shot.js';

/** The demo's shots as version 1 wrote them down, and the SHA-256 of the CSV that each was baked to. */
interface EarlierShot {
  readonly name: string;
  readonly digest: string;
  readonly shot: { readonly version: number };
}

const FIXTURE = new URL('../fixtures/version-1-shots.jsonl.br', import.meta.url);
const kept = brotliDecompressSync(readFileSync(FIXTURE))
  .toString('utf8')
  .split('\n')
  .map((line) => JSON.parse(line) as EarlierShot);

const TODAY: Readonly<Record<string, () => Shot | Promise<Shot>>> = {
  barrels: barrelsShot,
  'first-try': async () => firstTryShot(await orchardShot()),
  lift: async () => liftShot(await orchardShot()),
  orchard: orchardShot,
};

/** A shot but for the numbers of what is frozen: those are a bake, which is judged by its bytes. */
const unbaked = (shot: Shot) => ({
  ...shot,
  riders: shot.riders.map((rider) => ({ ...rider, frozen: rider.frozen !== null })),
});

describe.each(kept)('$name, written by version 1', ({ name, digest, shot }) => {
  it('becomes the shot of today', async () => {
    expect(shot.version).toBe(1);
    expect(unbaked(parseShot(shot))).toEqual(unbaked(await TODAY[name]()));
  });

  it('is baked to the same bytes as it was', async () => {
    const now = parseShot(shot);
    const csv = writeCsv(evaluateShot(now, await assetsOf(now, await documentsOf(now.models))));
    expect(createHash('sha256').update(csv).digest('hex')).toBe(digest);
  });
});
