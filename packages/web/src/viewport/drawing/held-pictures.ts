/** Target of a picture beside the canvas. */
interface Made {
  readonly beside: WebGLFramebuffer;
  readonly color: WebGLRenderbuffer;
  readonly depth: WebGLRenderbuffer;
}

const make = (gl: WebGL2RenderingContext): Made => ({
  beside: gl.createFramebuffer(),
  color: gl.createRenderbuffer(),
  depth: gl.createRenderbuffer(),
});

/**
 * Pictures drawn beside the canvas, and copied to it when done. Without a graphics card the page reads the canvas
 * with its next frame, and stops until all requested drawing is done: so it should find no more to do than a copy.
 * Meanwhile the context's own framebuffer is replaced by the one beside it; the drawing code does not know.
 */
export class HeldPictures {
  private made: Made;
  private readonly bind: (target: GLenum, buffer: WebGLFramebuffer | null) => void;
  private width = 0;
  private height = 0;
  private direct = false;

  constructor(private readonly gl: WebGL2RenderingContext) {
    this.made = make(gl);
    this.bind = gl.bindFramebuffer.bind(gl);
    const drawBuffers = gl.drawBuffers.bind(gl);
    gl.bindFramebuffer = (target, buffer) =>
      this.bind(target, buffer ?? (this.direct ? null : this.made.beside));
    gl.drawBuffers = (buffers) =>
      drawBuffers([...buffers].map((one) => (one === gl.BACK && !this.direct ? gl.COLOR_ATTACHMENT0 : one)));
    this.bind(gl.FRAMEBUFFER, this.made.beside);
  }

  /** To be called when a lost context is back: all that was made in it is gone. */
  makeAnew(): void {
    this.made = make(this.gl);
    this.width = this.height = 0;
    this.bind(this.gl.FRAMEBUFFER, this.made.beside);
  }

  /** Begins a picture, as large as the canvas is. */
  begin(): void {
    const { gl } = this;
    const { drawingBufferWidth: width, drawingBufferHeight: height } = gl;
    if (width === this.width && height === this.height) return;
    [this.width, this.height] = [width, height];
    this.bind(gl.FRAMEBUFFER, this.made.beside);
    for (const [buffer, format, attachment] of [
      [this.made.color, gl.RGBA8, gl.COLOR_ATTACHMENT0],
      [this.made.depth, gl.DEPTH24_STENCIL8, gl.DEPTH_STENCIL_ATTACHMENT],
    ] as const) {
      gl.bindRenderbuffer(gl.RENDERBUFFER, buffer);
      gl.renderbufferStorage(gl.RENDERBUFFER, format, width, height);
      gl.framebufferRenderbuffer(gl.FRAMEBUFFER, attachment, gl.RENDERBUFFER, buffer);
    }
    gl.bindRenderbuffer(gl.RENDERBUFFER, null);
  }

  /** Puts on the canvas what was drawn; stretched, where that has another size by now. */
  show(): void {
    const { gl, width, height } = this;
    if (width === 0) return;
    const { drawingBufferWidth, drawingBufferHeight } = gl;
    const scissored = gl.isEnabled(gl.SCISSOR_TEST);
    gl.disable(gl.SCISSOR_TEST);
    this.bind(gl.READ_FRAMEBUFFER, this.made.beside);
    this.bind(gl.DRAW_FRAMEBUFFER, null);
    // Shown, a canvas is to be emptied before more is drawn on it; a copy alone is not taken for drawing, and would go with it.
    gl.clear(gl.DEPTH_BUFFER_BIT);
    const exact = width === drawingBufferWidth && height === drawingBufferHeight;
    gl.blitFramebuffer(
      ...([0, 0, width, height, 0, 0, drawingBufferWidth, drawingBufferHeight] as const),
      gl.COLOR_BUFFER_BIT,
      exact ? gl.NEAREST : gl.LINEAR,
    );
    this.bind(gl.FRAMEBUFFER, this.made.beside);
    if (scissored) gl.enable(gl.SCISSOR_TEST);
  }

  /** Draws something on the canvas itself, to be read from there; restores its former content. */
  directly<T>(work: () => T): T {
    const { gl } = this;
    this.direct = true;
    this.bind(gl.FRAMEBUFFER, null);
    try {
      return work();
    } finally {
      this.direct = false;
      this.show();
    }
  }

  dispose(): void {
    const { gl } = this;
    // The context's own are underneath.
    Reflect.deleteProperty(gl, 'bindFramebuffer');
    Reflect.deleteProperty(gl, 'drawBuffers');
    gl.deleteFramebuffer(this.made.beside);
    gl.deleteRenderbuffer(this.made.color);
    gl.deleteRenderbuffer(this.made.depth);
  }
}
