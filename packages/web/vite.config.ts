import { readdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { brotliCompress } from 'node:zlib';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';

/** The page speaks English: React Aria's sentences in thirty-three other languages stay out of it. */
const englishOnly: Plugin = {
  name: 'english-only',
  enforce: 'pre',
  load(id) {
    const locale = /react-aria.*\/intl\/.*\/([a-z]{2}-[A-Z]{2})\.m?js$/.exec(id)?.[1];
    return locale === undefined || locale === 'en-US' ? null : 'export default {};';
  },
};

/**
 * The diagram has its own copy of d3's modules: shared with the charts, which load later, it would bring all that
 * those need along.
 */
const ownD3: Plugin = {
  name: 'own-d3',
  enforce: 'pre',
  apply: 'build',
  async resolveId(source, importer) {
    if (!/^d3-/.test(source) || !importer) return null;
    if (!importer.endsWith(OWN) && importer.includes('/node_modules/')) return null;
    const found = await this.resolve(source, importer.replace(OWN, ''), { skipSelf: true });
    return found && { id: `${found.id}${OWN}`, moduleSideEffects: false };
  },
  load: (id) => (id.endsWith(OWN) ? readFile(id.slice(0, -OWN.length), 'utf8') : null),
};
const OWN = '?own';

/** Files are compressed once, as tightly as it goes, and not at every request. */
const compressed: Plugin = {
  name: 'compressed',
  apply: 'build',
  async writeBundle({ dir = '' }) {
    const entries = await readdir(dir, { recursive: true, withFileTypes: true });
    const files = entries
      .filter(({ name }) => /\.(js|css|svg|wasm)$/.test(name))
      .map(({ name, parentPath }) => join(parentPath, name));
    await Promise.all(files.map(async (file) => writeFile(`${file}.br`, await brotli(await readFile(file)))));
  },
};
const brotli = promisify(brotliCompress);

export default defineConfig({
  plugins: [englishOnly, ownD3, react(), compressed],
  build: {
    outDir: 'dist',
    emptyOutDir: true,
    target: 'es2022',
    chunkSizeWarningLimit: 2500,
    sourcemap: false,
  },
  worker: { format: 'es' },
});
