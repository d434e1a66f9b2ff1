import * as THREE from 'three';

/** Meshes on this layer are outlined. */
const OUTLINED = 7;
const PIXELS = 2;
const WAYS: readonly (readonly [x: number, y: number])[] = [
  [-1, -1],
  [1, -1],
  [-1, 1],
  [1, 1],
];

/** Outline of the selected rider, visible through everything before it. It needs a stencil. */
export class Outline {
  private readonly mask = new THREE.MeshBasicMaterial({
    colorWrite: false,
    depthTest: false,
    depthWrite: false,
    side: THREE.DoubleSide,
    stencilWrite: true,
    stencilRef: 1,
    stencilZPass: THREE.ReplaceStencilOp,
  });
  private readonly shift = { value: new THREE.Vector2() };
  private readonly line = new THREE.MeshBasicMaterial({
    depthTest: false,
    depthWrite: false,
    fog: false,
    side: THREE.DoubleSide,
    stencilWrite: true,
    stencilRef: 1,
    stencilFunc: THREE.NotEqualStencilFunc,
  });
  private outlined: THREE.Object3D | null = null;

  constructor() {
    this.line.onBeforeCompile = (shader) => {
      shader.uniforms.shift = this.shift;
      shader.vertexShader = `uniform vec2 shift;\n${shader.vertexShader}`.replace(
        '#include <project_vertex>',
        '#include <project_vertex>\n  gl_Position.xy += shift * gl_Position.w;',
      );
    };
  }

  /** Over a picture that was just drawn. */
  draw(
    renderer: THREE.WebGLRenderer,
    scene: THREE.Scene,
    camera: THREE.Camera,
    object: THREE.Object3D | null,
    color: string,
  ): void {
    // A model that came later is marked too.
    this.outlined?.traverse(({ layers }) => layers.disable(OUTLINED));
    object?.traverse(({ layers }) => layers.enable(OUTLINED));
    this.outlined = object;
    if (object?.visible !== true) return;
    this.line.color.set(color);
    const { background } = scene;
    const { autoClear } = renderer;
    const { mask: layers } = camera.layers;
    const { autoUpdate } = renderer.shadowMap;
    scene.background = null;
    scene.matrixWorldAutoUpdate = renderer.autoClear = renderer.shadowMap.autoUpdate = false;
    camera.layers.set(OUTLINED);
    scene.overrideMaterial = this.mask;
    renderer.render(scene, camera);
    scene.overrideMaterial = this.line;
    const { width, height } = renderer.domElement;
    for (const [x, y] of WAYS) {
      const reach = PIXELS * renderer.getPixelRatio();
      this.shift.value.set((x * reach * 2) / width, (y * reach * 2) / height);
      renderer.render(scene, camera);
    }
    camera.layers.mask = layers;
    scene.overrideMaterial = null;
    scene.background = background;
    scene.matrixWorldAutoUpdate = true;
    renderer.autoClear = autoClear;
    renderer.shadowMap.autoUpdate = autoUpdate;
  }

  dispose(): void {
    this.mask.dispose();
    this.line.dispose();
  }
}
