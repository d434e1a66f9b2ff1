import * as THREE from 'three';

/** Draws the stage beside the canvas that is seen, at any size. Its context is made with the first picture. */
export class PictureRenderer {
  private made: THREE.WebGLRenderer | null = null;

  /**
   * @param clear without a background
   * @throws Error where the picture is larger than can be drawn here
   */
  draw(
    scene: THREE.Scene,
    camera: THREE.Camera,
    width: number,
    height: number,
    clear: boolean,
  ): HTMLCanvasElement {
    this.made ??= new THREE.WebGLRenderer({ antialias: true, alpha: true, preserveDrawingBuffer: true });
    const most = this.made.getContext().getParameter(WebGL2RenderingContext.MAX_RENDERBUFFER_SIZE) as number;
    if (width > most || height > most)
      throw new Error(`${width} × ${height} pixels cannot be drawn here; ${most} each way at most.`);
    this.made.setPixelRatio(1);
    this.made.setSize(width, height, false);
    this.made.setClearColor(0x000000, 0);
    const { background } = scene;
    if (clear) scene.background = null;
    this.made.render(scene, camera);
    scene.background = background;
    return this.made.domElement;
  }

  dispose(): void {
    this.made?.dispose();
    this.made?.forceContextLoss();
    this.made = null;
  }
}
