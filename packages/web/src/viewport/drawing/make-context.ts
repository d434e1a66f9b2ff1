import { GraphicsSide } from './graphics-side';
import { smoothEdges } from './smooth-edges';

/** Options of the stage's context. */
export const stageContext = () => ({ antialias: smoothEdges(), stencil: true });

/**
 * Makes what a canvas is drawn on with, and goes on when the graphics side has done so: that is half of what it takes to set up a stage, and
 * whatever is asked of it before waits for it. A renderer takes the context that its canvas has.
 */
export async function makeContext(canvas: HTMLCanvasElement): Promise<void> {
  const gl = canvas.getContext('webgl2', stageContext()) as WebGL2RenderingContext | null;
  // Without one the renderer reports it.
  if (gl !== null) await new Promise<void>((goOn) => new GraphicsSide(gl).whenDone(goOn));
}
