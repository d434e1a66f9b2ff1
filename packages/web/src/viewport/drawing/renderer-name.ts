/** Name of this machine's WebGL renderer; none without one. */
export function rendererName(canvas: HTMLCanvasElement | OffscreenCanvas): string {
  const gl = canvas.getContext('webgl2') as WebGL2RenderingContext | null;
  const info = gl?.getExtension('WEBGL_debug_renderer_info');
  const name: unknown = info ? gl?.getParameter(info.UNMASKED_RENDERER_WEBGL) : '';
  // Browsers allow few contexts: this one is returned immediately.
  gl?.getExtension('WEBGL_lose_context')?.loseContext();
  return String(name);
}
