import type { Rider } from '@fleet-rail/core';
import * as THREE from 'three';
import { LABEL_FONT } from '../../ui/theme/fonts';
import type { Theme } from '../../ui/theme/theme';
import { paintBadge } from '../../ui/paint-badge';
import { setNumbers } from '../lines/dots';
import type { ScreenPlace } from './screen-projection';
import { BADGE } from './step-aside';
import { MOST_BADGES, type StageLabel } from './stage-labels';

const TALL = 18;
/** Room for the widest badge with its rims, pixels: a cell of the picture of all badges. */
const CELL = { width: 80, height: 26 };
const COLUMNS = 12;
/** The first cell is full of ink, for hair lines. */
const INK = 0;

/** Riders' badges as on a route map, and thin lines to those that moved aside: drawn over the picture in one call. */
export class RiderBadges {
  private readonly scene = new THREE.Scene();
  private readonly camera = new THREE.OrthographicCamera();
  private readonly canvas = document.createElement('canvas');
  private readonly texture = new THREE.CanvasTexture(this.canvas);
  private readonly mesh = new THREE.Mesh(
    new THREE.BufferGeometry(),
    new THREE.MeshBasicMaterial({
      map: this.texture,
      transparent: true,
      depthTest: false,
      side: THREE.DoubleSide,
      // In two passes lines would cover badges.
      forceSinglePass: true,
      toneMapped: false,
    }),
  );
  private readonly size = new THREE.Vector2();
  private painted: readonly unknown[] = [];
  private cells = new Map<string, number>();
  private isGone = false;

  constructor(redraw: () => void) {
    this.texture.colorSpace = THREE.SRGBColorSpace;
    // Cells are drawn pixel for pixel.
    this.texture.minFilter = this.texture.magFilter = THREE.NearestFilter;
    this.texture.generateMipmaps = false;
    this.mesh.frustumCulled = false;
    this.scene.add(this.mesh);
    // Until its font has come the page writes in another.
    void document.fonts.load(`600 ${TALL}px ${LABEL_FONT}`).then(() => {
      this.painted = [];
      if (!this.isGone) redraw();
    });
  }

  /**
   * Over a picture that was just drawn.
   *
   * @param badges where riders are, keyed `rider` and the id, pixels from the stage's corner
   */
  draw(
    renderer: THREE.WebGLRenderer,
    riders: readonly Rider[],
    theme: Theme,
    badges: readonly StageLabel[],
  ): void {
    if (badges.length === 0) return;
    const ratio = renderer.getPixelRatio();
    // The visible ones change with every picture; all are painted, unless only one is shown.
    const chosen = ({ id }: Rider) => badges.some(({ key }) => key === `rider ${id}`);
    this.paint(riders.length > MOST_BADGES ? riders.filter(chosen) : riders, theme, ratio);
    const quads = new Quads(this.canvas.width / ratio, this.canvas.height / ratio);
    for (const { x, y, aside } of badges) if (aside) quads.addLine({ x, y }, below(aside));
    for (const { key, x, y, aside } of badges) {
      const at = below(aside ?? { x, y });
      const snapped = (value: number) => Math.round(value * ratio) / ratio;
      const [left, top] = [snapped(at.x - CELL.width / 2), snapped(at.y - CELL.height / 2)];
      quads.addCell(left, top, this.cells.get(key) ?? INK);
    }
    quads.into(this.mesh.geometry);
    renderer.getSize(this.size);
    Object.assign(this.camera, {
      left: 0,
      right: this.size.x,
      top: 0,
      bottom: this.size.y,
      near: -1,
      far: 1,
    });
    this.camera.updateProjectionMatrix();
    const { autoClear } = renderer;
    renderer.autoClear = false;
    renderer.render(this.scene, this.camera);
    renderer.autoClear = autoClear;
  }

  dispose(): void {
    this.isGone = true;
    this.mesh.geometry.dispose();
    this.mesh.material.dispose();
    this.texture.dispose();
  }

  /** Paints the badges of riders side by side, unless they are as they were. */
  private paint(riders: readonly Rider[], theme: Theme, ratio: number): void {
    const from = [
      theme,
      ratio,
      ...riders.flatMap(({ id, badge, color, frozen }) => [id, badge, color, frozen !== null]),
    ];
    if (from.length === this.painted.length && from.every((part, i) => part === this.painted[i])) return;
    this.painted = from;
    this.cells = new Map(riders.map(({ id }, i) => [`rider ${id}`, i + 1]));
    this.canvas.width = COLUMNS * CELL.width * ratio;
    this.canvas.height = Math.ceil((riders.length + 1) / COLUMNS) * CELL.height * ratio;
    const pen = this.canvas.getContext('2d') as CanvasRenderingContext2D;
    pen.scale(ratio, ratio);
    pen.fillStyle = theme.ink;
    pen.fillRect(0, 0, CELL.width, CELL.height);
    riders.forEach((rider, i) => {
      const [left, top] = cornerOf(i + 1);
      const rim = rider.frozen === null ? null : theme.panel;
      paintBadge(pen, left + CELL.width / 2, top + (CELL.height - TALL) / 2, TALL, rider, rim);
    });
    // Its size may be another: it is sent to the graphics card anew.
    this.texture.dispose();
    this.texture.needsUpdate = true;
  }
}

const below = ({ x, y }: ScreenPlace): ScreenPlace => ({ x, y: y + BADGE.below });

const cornerOf = (cell: number): [left: number, top: number] => [
  (cell % COLUMNS) * CELL.width,
  Math.floor(cell / COLUMNS) * CELL.height,
];

/** Rectangles on the screen, each with a part of a picture, in pixels. */
class Quads {
  private readonly places: number[] = [];
  private readonly parts: number[] = [];

  constructor(
    private readonly width: number,
    private readonly height: number,
  ) {}

  addCell(left: number, top: number, cell: number): void {
    const [u, v] = cornerOf(cell);
    const [right, bottom] = [left + CELL.width, top + CELL.height];
    this.add([left, top, right, top, right, bottom, left, bottom], [u, v, u + CELL.width, v + CELL.height]);
  }

  /** A line one pixel wide. */
  addLine(from: ScreenPlace, to: ScreenPlace): void {
    const long = Math.hypot(to.x - from.x, to.y - from.y) || 1;
    const [nx, ny] = [(from.y - to.y) / long / 2, (to.x - from.x) / long / 2];
    const [u, v] = [CELL.width / 2, CELL.height / 2];
    this.add(
      [from.x + nx, from.y + ny, to.x + nx, to.y + ny, to.x - nx, to.y - ny, from.x - nx, from.y - ny],
      [u, v, u, v],
    );
  }

  private add(corners: readonly number[], [left, top, right, bottom]: readonly number[]): void {
    const part = [left, top, right, top, right, bottom, left, bottom];
    for (const corner of [0, 1, 2, 0, 2, 3]) {
      this.places.push(corners[2 * corner], corners[2 * corner + 1], 0);
      this.parts.push(part[2 * corner] / this.width, 1 - part[2 * corner + 1] / this.height);
    }
  }

  into(geometry: THREE.BufferGeometry): void {
    setNumbers(geometry, 'position', this.places, 3);
    setNumbers(geometry, 'uv', this.parts, 2);
  }
}
