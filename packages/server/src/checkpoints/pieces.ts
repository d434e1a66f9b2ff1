import { createHash } from 'node:crypto';
import { deflateRawSync, inflateRawSync } from 'node:zlib';

/** Lists of a document whose entries change one by one and are large: each entry is a piece. Models stay where they can be looked for. */
const LISTS = ['paths', 'riders', 'cues', 'retimes'] as const;

/** A document without its pieces, and those by their digest. */
export interface InPieces {
  /** JSON: the document with digests where its pieces were. */
  readonly outline: string;
  /** Deflated. */
  readonly pieces: ReadonlyMap<string, Buffer>;
}

/** Cuts a document into what is kept once for all checkpoints that have it. */
export function piecesOf(document: string): InPieces {
  const shot = JSON.parse(document) as Record<string, unknown>;
  const pieces = new Map<string, Buffer>();
  for (const list of LISTS) {
    const entries = shot[list];
    if (!Array.isArray(entries)) continue;
    shot[list] = entries.map((entry: unknown) => {
      const text = JSON.stringify(entry);
      const digest = createHash('sha256').update(text).digest('base64url');
      if (!pieces.has(digest)) pieces.set(digest, deflateRawSync(text));
      return digest;
    });
  }
  return { outline: JSON.stringify(shot), pieces };
}

/** The digests that an outline names. */
export function digestsOf(outline: string): string[] {
  const shot = JSON.parse(outline) as Record<string, unknown>;
  return LISTS.flatMap((list) => (Array.isArray(shot[list]) ? (shot[list] as string[]) : []));
}

/**
 * Puts a document together again, as JSON. Pieces are texts already, so nothing but the outline is parsed.
 *
 * @throws Error where a piece is missing: a database that was tampered with
 */
export function wholeOf(outline: string, pieces: ReadonlyMap<string, Uint8Array>): string {
  const shot = JSON.parse(outline) as Record<string, unknown>;
  const textOf = (digest: string): string => {
    const bytes = pieces.get(digest);
    if (bytes === undefined) throw new Error(`A part of this checkpoint is missing (${digest}).`);
    return inflateRawSync(bytes).toString('utf8');
  };
  const entries = Object.entries(shot).map(([key, value]) => {
    const isList = Array.isArray(value) && LISTS.some((list) => list === key);
    const text = isList ? `[${(value as string[]).map(textOf).join(',')}]` : JSON.stringify(value);
    return `${JSON.stringify(key)}:${text}`;
  });
  return `{${entries.join(',')}}`;
}
