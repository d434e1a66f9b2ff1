/** Milliseconds between two looks at how far it is. Frames of the page are no measure: they wait for it too. */
const LOOK = 4;

/**
 * Work of the graphics side, beside the page. While it is busy, any query of it (of a new program, above all) stops
 * the page: without a graphics card for half a second.
 */
export class GraphicsSide {
  private wait: ReturnType<typeof setTimeout> | undefined;

  constructor(private readonly gl: WebGL2RenderingContext) {}

  /** Resolves when everything requested so far is done, or all is over. */
  whenDone(goOn: () => void): void {
    const { gl } = this;
    const fence = gl.fenceSync(gl.SYNC_GPU_COMMANDS_COMPLETE, 0);
    gl.flush();
    const look = () => {
      if (fence !== null && gl.clientWaitSync(fence, 0, 0) === gl.TIMEOUT_EXPIRED) {
        this.wait = setTimeout(look, LOOK);
        return;
      }
      gl.deleteSync(fence);
      goOn();
    };
    look();
  }

  dispose(): void {
    clearTimeout(this.wait);
  }
}
