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

export default defineConfig({
  plugins: [englishOnly, react()],
  build: {
    outDir: 'dist',
    emptyOutDir: true,
    target: 'es2022',
    chunkSizeWarningLimit: 2500,
    sourcemap: false,
  },
  worker: { format: 'es' },
});
