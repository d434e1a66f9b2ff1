import { rendererName } from './renderer-name';

/** Renderers that draw without a graphics card. */
const SOFTWARE = /swiftshader|llvmpipe|softpipe|software|basic render/i;

let cached: boolean | null = null;
let asked: Promise<void> | null = null;

/**
 * Whether edges are smoothed where they are drawn. Without a graphics card every picture would cost several, and
 * a drag that follows the hand is worth more.
 */
export function smoothEdges(): boolean {
  cached ??= isSmooth(rendererName(document.createElement('canvas')));
  return cached;
}

/** Starts the graphics side beside the page, which would stop for it; settles when {@link smoothEdges} is known or has to ask by itself. */
export function startGraphics(): Promise<void> {
  asked ??= new Promise((resolve) => {
    if (typeof OffscreenCanvas === 'undefined') {
      resolve();
      return;
    }
    const worker = new Worker(new URL('./graphics-worker.ts', import.meta.url), { type: 'module' });
    const settle = () => {
      worker.terminate();
      resolve();
    };
    worker.onmessage = ({ data }: MessageEvent<string>) => {
      if (data !== '') cached ??= isSmooth(data);
      settle();
    };
    worker.onerror = settle;
  });
  return asked;
}

const isSmooth = (renderer: string) => !SOFTWARE.test(renderer);
