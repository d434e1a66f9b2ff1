import type { Entry, ZipFile } from 'yauzl';
import { JobRefusal } from '../threads/thread-job.js';
import { openZip } from '../files/open-zip.js';

/** Limits of a backup, checked before anything of it is unpacked. */
const MOST_ENTRIES = 500_000;
const MOST_BYTES = 16 * 2 ** 30;
/** A model of 64 MB, unpacked at intake, may be several times as large. */
const MOST_OF_ENTRY = 2 ** 30;
/** Documents become a tenth to a fiftieth; what is packed further has nothing in it. */
const MOST_RATIO = 100;
/** A small document, or a small backup of equal ones, may well be packed further than that. */
const RATIO_FROM = 64 * 2 ** 20;

/** Why a file is no backup that is taken. */
export class BackupRefused extends JobRefusal {
  override readonly name = 'BackupRefused';
}

/** The files of a backup, each read when it is asked for. */
export class BackupZip {
  private constructor(
    private readonly zip: ZipFile,
    private readonly entries: ReadonlyMap<string, Entry>,
  ) {}

  /** @throws BackupRefused for what is no zip, or would unpack to more than a backup has */
  static async open(path: string): Promise<BackupZip> {
    const zip = await openZip(path).catch(() => {
      throw new BackupRefused('This zip cannot be read; expected a backup.');
    });
    try {
      return new BackupZip(zip, await entriesOf(zip));
    } catch (error) {
      zip.close();
      throw error;
    }
  }

  has(name: string): boolean {
    return this.entries.has(name);
  }

  /**
   * The bytes of a file.
   *
   * @throws BackupRefused where it is not there or cannot be unpacked to the size it declares
   */
  async read(name: string): Promise<Buffer> {
    const entry = this.entries.get(name);
    if (entry === undefined) throw new BackupRefused('is not in the backup');
    try {
      const stream = await new Promise<NodeJS.ReadableStream>((resolve, reject) => {
        this.zip.openReadStream(entry, (error, opened) => (error ? reject(error) : resolve(opened)));
      });
      const parts: Buffer[] = [];
      for await (const part of stream) parts.push(part as Buffer);
      return Buffer.concat(parts);
    } catch (error) {
      throw new BackupRefused(`cannot be unpacked: ${(error as Error).message.slice(0, 200)}`);
    }
  }

  close(): void {
    this.zip.close();
  }
}

/** The table of a zip, whose sizes are held to when its files are unpacked. */
function entriesOf(zip: ZipFile): Promise<Map<string, Entry>> {
  const most = (what: string) => new BackupRefused(`The zip ${what}; a backup has less.`);
  if (zip.entryCount > MOST_ENTRIES)
    return Promise.reject(most(`has ${zip.entryCount} files, over ${MOST_ENTRIES}`));
  return new Promise((resolve, reject) => {
    const entries = new Map<string, Entry>();
    let packed = 0;
    let unpacked = 0;
    zip.on('error', () => reject(new BackupRefused('The zip is broken; expected a whole backup.')));
    zip.on('end', () => resolve(entries));
    zip.on('entry', (entry: Entry) => {
      packed += entry.compressedSize;
      unpacked += entry.uncompressedSize;
      if (entry.uncompressedSize > MOST_OF_ENTRY)
        return reject(
          most(
            `has a file "${entry.fileName.slice(0, 60)}" of ${megabytes(entry.uncompressedSize)}, over ${megabytes(MOST_OF_ENTRY)}`,
          ),
        );
      if (unpacked > MOST_BYTES) return reject(most(`unpacks to over ${megabytes(MOST_BYTES)}`));
      if (isBomb(entry.compressedSize, entry.uncompressedSize) || isBomb(packed, unpacked))
        return reject(most(`unpacks to over ${MOST_RATIO} times its size`));
      if (entries.has(entry.fileName))
        return reject(
          new BackupRefused(`The zip has "${entry.fileName.slice(0, 60)}" twice; expected once.`),
        );
      entries.set(entry.fileName, entry);
      zip.readEntry();
    });
    zip.readEntry();
  });
}

const isBomb = (packed: number, unpacked: number): boolean =>
  unpacked > RATIO_FROM && unpacked > MOST_RATIO * packed;

const megabytes = (bytes: number): string => `${Math.ceil(bytes / 2 ** 20)} MB`;
