/** What a backup holds, in `library.json` at its top; documents and models are files beside it. */
export interface LibraryIndex {
  readonly format: 'fleet-rail-library';
  readonly version: 1;
  readonly shots: readonly ShotEntry[];
  readonly checkpoints: readonly CheckpointEntry[];
  readonly models: readonly ModelEntry[];
}

/** A shot; its document is `shots/ID.json`. */
export interface ShotEntry {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly createdAt: string;
  readonly updatedAt: string;
  readonly deletedAt: string | null;
}

/** A checkpoint of a shot; its document is `checkpoints/ID.json`. */
export interface CheckpointEntry {
  readonly id: string;
  readonly shotId: string;
  readonly name: string;
  readonly revision: number;
  readonly createdAt: string;
}

/** A model; its bytes are `models/SHA256`. */
export interface ModelEntry {
  readonly id: string;
  readonly name: string;
  readonly fileName: string;
  readonly sha256: string;
  readonly shipped: boolean;
}

export const INDEX_FILE = 'library.json';

const isText = (value: unknown): value is string => typeof value === 'string' && value.length <= 1000;
/** Names of files are made of these, so they are nothing but names. */
const isId = (value: unknown): value is string => isText(value) && /^[\w-]{1,100}$/.test(value);

/** A backup's index; null for what is none. */
export function readIndex(text: string): LibraryIndex | null {
  let read: Partial<LibraryIndex> | null;
  try {
    read = JSON.parse(text) as Partial<LibraryIndex> | null;
  } catch {
    return null;
  }
  if (read?.format !== 'fleet-rail-library' || read.version !== 1) return null;
  const { shots, checkpoints, models } = read;
  if (!Array.isArray(shots) || !Array.isArray(checkpoints) || !Array.isArray(models)) return null;
  const isWhole =
    (shots as ShotEntry[]).every(
      (one) => isId(one?.id) && isText(one.name) && Number.isInteger(one.revision),
    ) &&
    (checkpoints as CheckpointEntry[]).every(
      (one) => isId(one?.id) && isId(one.shotId) && isText(one.name),
    ) &&
    (models as ModelEntry[]).every((one) => isId(one?.id) && isText(one.fileName) && isId(one.sha256));
  return isWhole ? (read as LibraryIndex) : null;
}
