/** Renderers that draw without a graphics card. */
const SOFTWARE = /swiftshader|llvmpipe|softpipe|software|basic render/i;

let cached: boolean | null = null;

/**
 * Whether edges are smoothed where they are drawn. Without a graphics card every picture would cost several, and
 * a drag that follows the hand is worth more.
 */
export function smoothEdges(): boolean {
  cached ??= !SOFTWARE.test(rendererName());
  return cached;
}

function rendererName(): string {
  const gl = document.createElement('canvas').getContext('webgl2');
  const info = gl?.getExtension('WEBGL_debug_renderer_info');
  const name: unknown = info ? gl?.getParameter(info.UNMASKED_RENDERER_WEBGL) : '';
  // The browser keeps few contexts: this one is given back at once.
  gl?.getExtension('WEBGL_lose_context')?.loseContext();
  return String(name);
}
