import condensed from '@fontsource/barlow-condensed/files/barlow-condensed-latin-600-normal.woff2?url';
import condensedThin from '@fontsource/barlow-condensed/files/barlow-condensed-latin-500-normal.woff2?url';
import { expose } from 'comlink';
import { PictureRenderer, type RendererFor, type RendererState } from './picture-renderer';

/** Burned-in text uses the application's own font. */
async function loadFonts(): Promise<void> {
  const { fonts } = globalThis as unknown as { fonts: FontFaceSet };
  for (const [url, weight] of [
    [condensed, '600'],
    [condensedThin, '500'],
  ]) {
    const face = new FontFace('Barlow Condensed', `url(${url})`, { weight });
    fonts.add(await face.load());
  }
}

let running: { readonly control: AbortController; readonly over: Promise<void> } | null = null;

const api = {
  /** Draws for the pool until it is stopped. */
  async start(self: RendererFor, tell: (state: RendererState) => void): Promise<void> {
    await loadFonts();
    const control = new AbortController();
    running = { control, over: new PictureRenderer(self, tell, control.signal).work() };
  },
  /** Ends it; what it has begun is left to others. */
  async stop(): Promise<void> {
    running?.control.abort();
    await running?.over;
    running = null;
  },
};

export type RendererWorker = typeof api;

expose(api);
