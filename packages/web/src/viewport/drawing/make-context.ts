import { GraphicsSide } from './graphics-side';
import { smoothEdges } from './smooth-edges';

/** What a stage asks of its context. */
export const stageContext = () => ({ antialias: smoothEdges(), stencil: true });

/**
 * Makes what a canvas is drawn on with, and goes on when the graphics side has done so: that is half of what it takes to set up a stage, and
 * whatever is asked of it before waits for it. A renderer takes the context that its canvas has.
 */
export async function makeContext(canvas: HTMLCanvasElement): Promise<void> {
  const gl = canvas.getContext('webgl2', stageContext()) as WebGL2RenderingContext | null;
  // Where there is none the renderer says so.
  if (gl !== null) await new Promise<void>((goOn) => new GraphicsSide(gl).whenDone(goOn));
}
