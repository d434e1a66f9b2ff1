import { GraphicsSide } from './graphics-side';
import { smoothEdges } from './smooth-edges';

/**
 * Makes what a canvas is drawn on with, and goes on when the graphics side has done so: that is half of what it takes to set up a stage, and
 * whatever is asked of it before waits for it. A renderer takes the context that its canvas has.
 */
export async function makeContext(canvas: HTMLCanvasElement): Promise<void> {
  const gl = canvas.getContext('webgl2', {
    alpha: true,
    depth: true,
    stencil: true,
    antialias: smoothEdges(),
  });
  // Where there is none the renderer says so.
  if (gl !== null) await new Promise<void>((goOn) => new GraphicsSide(gl).whenDone(goOn));
}
