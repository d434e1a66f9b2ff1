import { unzipSync } from 'fflate';
import { FormatError } from '../format-error.js';

/** A file that was chosen or dropped, alone or with others. */
export interface GivenFile {
  /** Its name, with the folders it lay in where those are known. */
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** Limit of what a zip may unpack to: more is no model, or a zip made to fill the disk. */
const MOST_UNPACKED = 512 * 2 ** 20;
const MOST_FILES = 2000;

/** Extensions of files that can be a model alone, the most informative first. */
export const MODEL_ENDINGS = ['.glb', '.gltf', '.obj', '.stl', '.ply', '.bvh'] as const;
export type ModelEnding = (typeof MODEL_ENDINGS)[number];

/** Files, with zips unpacked. */
export function unpacked(files: readonly GivenFile[]): GivenFile[] {
  return files.flatMap((file) => (isZip(file.bytes) ? unzipped(file) : [file]));
}

function isZip(bytes: Uint8Array): boolean {
  return bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 3 && bytes[3] === 4;
}

function unzipped({ name, bytes }: GivenFile): GivenFile[] {
  let [size, count] = [0, 0];
  const refuse = (problem: string): never => {
    throw new FormatError(name, problem);
  };
  let entries: Record<string, Uint8Array>;
  try {
    entries = unzipSync(bytes, {
      filter(entry) {
        // Folders, and what one system puts beside every file.
        if (entry.name.endsWith('/') || /(^|\/)(__MACOSX\/|\._|\.DS_Store)/.test(entry.name)) return false;
        size += entry.originalSize;
        count++;
        if (count > MOST_FILES)
          refuse(`holds more than ${MOST_FILES} files; expected one model with what it needs.`);
        if (size > MOST_UNPACKED) refuse('unpacks to more than 512 MB; expected less.');
        return true;
      },
    });
  } catch (error) {
    if (error instanceof FormatError) throw error;
    return refuse('is a broken zip; expected one that can be unpacked.');
  }
  return Object.entries(entries).map(([entry, content]) => ({ name: entry, bytes: content }));
}

/** A file's ending, in small letters. */
export const endingOf = (name: string): string => /\.[^./\\]*$/.exec(name)?.[0].toLowerCase() ?? '';

/**
 * Which of some files is the model; the others are what it needs.
 *
 * @param given what they came as, for messages
 * @throws FormatError where there is none, or more than one
 */
export function modelAmong(files: readonly GivenFile[], given: string): GivenFile {
  const models = files.filter(({ name }) => (MODEL_ENDINGS as readonly string[]).includes(endingOf(name)));
  if (models.length === 1) return models[0];
  // A single file with an unknown extension is recognised by its content.
  if (files.length === 1) return files[0];
  const names = models.slice(0, 4).map(({ name }) => name.slice(0, 60));
  throw new FormatError(
    given,
    models.length === 0
      ? `holds no model; expected one of ${MODEL_ENDINGS.join(', ')} among its ${files.length} files.`
      : `holds ${models.length} models (${names.join(', ')}${models.length > 4 ? ' …' : ''}); expected one at a time.`,
  );
}

/** Finds the file that another names: by its path, or by its name alone if only one has it. */
export function finder(files: readonly GivenFile[], from: GivenFile): (uri: string) => GivenFile | null {
  const byPath = new Map(files.map((file) => [normal(file.name), file]));
  const byName = new Map<string, GivenFile | null>();
  for (const file of files) {
    const name = normal(file.name).replace(/^.*\//, '');
    byName.set(name, byName.has(name) ? null : file);
  }
  const folder = normal(from.name).replace(/[^/]*$/, '');
  return (uri) => {
    const plain = decoded(uri);
    return (
      byPath.get(normal(folder + plain)) ??
      byPath.get(normal(plain)) ??
      byName.get(normal(plain).replace(/^.*\//, '')) ??
      null
    );
  };
}

function decoded(uri: string): string {
  try {
    return decodeURIComponent(uri);
  } catch {
    return uri;
  }
}

/** A path without dots, in small letters: file systems that tell letters apart are no model's concern. */
function normal(path: string): string {
  const parts: string[] = [];
  for (const part of path.replaceAll('\\', '/').toLowerCase().split('/')) {
    if (part === '..') parts.pop();
    else if (part !== '.' && part !== '') parts.push(part);
  }
  return parts.join('/');
}
