import { open, type ZipFile } from 'yauzl';

/**
 * Opens a zip by the table at its end; its entries are read one by one with `readEntry`.
 *
 * @throws Error where the file is no zip
 */
export function openZip(path: string): Promise<ZipFile> {
  return new Promise((resolve, reject) => {
    open(path, { lazyEntries: true, autoClose: false }, (error, zip) => {
      if (error) reject(error);
      else resolve(zip);
    });
  });
}
