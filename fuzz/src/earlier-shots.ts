import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { brotliDecompressSync } from 'node:zlib';
import { evaluateShot, parseShot, physicsFor, sampleShot } from '@fleet-rail/core';
import { stage } from './stage.js';

/** A random shot as an earlier version wrote it down, and the SHA-256 of all poses and parts that it played there. */
export interface EarlierShot {
  readonly seed: number;
  readonly digest: string;
  readonly shot: { readonly version: number };
}

const FIXTURE = new URL('../fixtures/version-1-shots.jsonl.br', import.meta.url);

let read: EarlierShot[] | null = null;

/** 200 shots of version 1. */
export function earlierShots(): readonly EarlierShot[] {
  read ??= brotliDecompressSync(readFileSync(FIXTURE))
    .toString('utf8')
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as EarlierShot);
  return read;
}

/**
 * Plays one of the version 1 shots completely.
 *
 * @param n counted from 1, round and round
 * @returns what is wrong with that; null where every number is the very same as it was
 */
export async function tryEarlier(n: number): Promise<string | null> {
  const all = earlierShots();
  const { digest, shot: raw } = all[(n - 1) % all.length];
  const shot = parseShot(raw);
  const assets = { ...stage(shot.ground.model !== null), physics: await physicsFor(shot) };
  const { riders, parts } = sampleShot(evaluateShot(shot, assets));
  const hash = createHash('sha256');
  for (const { buffer, byteOffset, byteLength } of [...riders, ...parts.map(({ values }) => values)])
    hash.update(Buffer.from(buffer, byteOffset, byteLength));
  return hash.digest('hex') === digest ? null : 'it plays otherwise than it did';
}
