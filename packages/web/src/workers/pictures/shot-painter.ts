import {
  physicsFor,
  type GroundMesh,
  type PictureEye,
  type PictureJob,
  type PlannedPicture,
} from '@fleet-rail/core';
import { groundOfShot, hierarchyOf } from '@fleet-rail/core/models';
import * as THREE from 'three';
import { modelFileUrl } from '../../api/models';
import { ChalkMarks } from '../../viewport/lines/chalk-marks';
import { cameraOf, cameraOfFree, lensAt } from '../../viewport/views/lens';
import { metresPerPixel } from '../../viewport/views/metres-per-pixel';
import { Ribbons } from '../../viewport/lines/ribbons';
import { StageSet } from '../../viewport/set/stage-set';
import { withEnds, withUpdate, type Evaluation } from '../evaluation/evaluation';
import { Evaluator } from '../evaluation/evaluator';
import { nextTask } from '../../ui/next-task';
import { encodeDelta } from '../evaluation/shot-delta';
import type { ModelFiles } from '../scene-assets/model-files';
import { DAY, NIGHT } from '../../ui/theme/theme';
import { drawBadges } from './badges';
import { burnIn } from './burn-in';
import { burnedText } from './burned-text';

/** Milliseconds of evaluation between two looks at whether it goes on. */
const SLICE = 100;

/** A part of a picture, pixels from its corner. */
interface Cell {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** The browser took the drawing context away: what was drawn since is blank. */
export class PainterLost extends Error {
  override readonly name = 'PainterLost';
}

/** A job's shot, evaluated. */
export interface EvaluatedJob {
  readonly evaluation: Evaluation;
  readonly ground: GroundMesh | null;
}

/**
 * Evaluates a job's shot, in slices between which the thread gets its turn.
 *
 * @throws Error where a model is not there or the signal ends it
 */
export async function evaluateJob(
  { shot }: PictureJob,
  files: ModelFiles,
  signal: AbortSignal,
): Promise<EvaluatedJob> {
  const models = shot.models.flatMap(({ id, name, source }) =>
    source.asset === undefined ? [] : [{ id, name, url: modelFileUrl(source.asset) }],
  );
  const read = new Map(
    await Promise.all(models.map(async ({ id, name, url }) => [id, await files.at(url, name)] as const)),
  );
  const ground = groundOfShot(shot, read.get(shot.ground.model ?? ''));
  const evaluator = new Evaluator();
  evaluator.setAssets(ground, new Map([...read].map(([id, model]) => [id, hierarchyOf(model)] as const)));
  evaluator.setPhysics(await physicsFor(shot));
  evaluator.begin(encodeDelta(null, shot), { frame: shot.range.first, rider: null });
  let evaluation: Evaluation | null = null;
  while (evaluator.busy) {
    signal.throwIfAborted();
    const update = evaluator.next(SLICE);
    evaluation = withUpdate(evaluation, update, shot);
    if (update.end) evaluation = withEnds(evaluation, [update.end]);
    await nextTask();
  }
  if (evaluation === null) throw new Error('The shot did not finish evaluating.');
  return { evaluation, ground };
}

/** Draws the pictures of a job on a canvas beside any page, with the very stage that the desk has. */
export class ShotPainter {
  private readonly renderer = new THREE.WebGLRenderer({
    canvas: new OffscreenCanvas(2, 2),
    antialias: true,
    alpha: true,
    stencil: true,
    preserveDrawingBuffer: true,
  });
  private readonly set: StageSet;
  private readonly ribbons = new Ribbons();
  private readonly chalk = new ChalkMarks();
  private readonly canvas: OffscreenCanvas;
  private readonly target: OffscreenCanvasRenderingContext2D;

  private constructor(
    private readonly job: PictureJob,
    readonly evaluation: Evaluation,
    private readonly ground: GroundMesh | null,
    tell: (problem: string) => void,
  ) {
    const { shot, wish } = job;
    const theme = job.theme === 'day' ? DAY : NIGHT;
    this.renderer.setClearColor(0x000000, 0);
    this.set = new StageSet(this.renderer, 'cast', () => undefined, tell);
    this.set.scene.add(this.ribbons.object, this.chalk.object);
    this.set.paint(theme);
    this.set.show(shot);
    const chosen = { shot, evaluation, riderId: job.board, pathId: null };
    this.ribbons.show(chosen, theme, () => null);
    this.chalk.show(shot.riders.find(({ id }) => id === job.board) ?? null, evaluation, theme);
    for (const helper of [this.set.grid.lines, this.ribbons.object, this.chalk.object])
      helper.visible &&= wish.helpers;
    this.canvas = new OffscreenCanvas(wish.width, wish.height);
    this.target = this.canvas.getContext('2d') as OffscreenCanvasRenderingContext2D;
    this.target.imageSmoothingQuality = 'high';
  }

  /**
   * Fetches the models that are seen.
   *
   * @param tell takes what could not be shown, in words
   */
  static async open(
    job: PictureJob,
    { evaluation, ground }: EvaluatedJob,
    tell: (problem: string) => void,
  ): Promise<ShotPainter> {
    const painter = new ShotPainter(job, evaluation, ground, tell);
    await painter.set.whole(ground);
    return painter;
  }

  /**
   * A picture of the job; the canvas is the same for all of them.
   *
   * @throws Error where it is larger than can be drawn here, or its camera is gone; PainterLost where drawing is over
   */
  draw({ frame, eyes }: PlannedPicture): OffscreenCanvas {
    const { job, target, evaluation } = this;
    const { wish, shot } = job;
    this.set.pose(this.job.shot, evaluation, frame);
    target.clearRect(0, 0, wish.width, wish.height);
    const cells = cellsOf(eyes.length, wish);
    cells.forEach((cell, i) => {
      const camera = this.look(eyes[i], frame, cell);
      target.drawImage(this.renderer.domElement, cell.x, cell.y, cell.width, cell.height);
      if (wish.helpers) drawBadges(target, shot, evaluation, frame, camera, cell);
    });
    burnIn(target, wish, wish.burnIn, burnedText(shot, evaluation, frame, job.board));
    return this.canvas;
  }

  dispose(): void {
    this.ribbons.dispose();
    this.chalk.dispose();
    this.set.dispose();
    this.renderer.dispose();
    this.renderer.forceContextLoss();
  }

  /** Draws what an eye sees, as large as a cell, and finer. */
  private look(eye: PictureEye, frame: number, cell: Cell): THREE.Camera {
    const { renderer, set } = this;
    const { wish } = this.job;
    const [width, height] = [cell.width * wish.times, cell.height * wish.times];
    const most = renderer.getContext().getParameter(WebGL2RenderingContext.MAX_RENDERBUFFER_SIZE) as number;
    if (width > most || height > most)
      throw new Error(`${width} × ${height} pixels cannot be drawn here; ${most} each way at most.`);
    renderer.setSize(width, height, false);
    const camera = this.cameraOf(eye, frame, width / height);
    set.figures.hide('rider' in eye ? eye.rider : null);
    if ('rider' in eye) set.figures.hideAround(camera.position);
    if (wish.helpers) this.ribbons.update((place) => metresPerPixel(camera, place, cell.height));
    const about = camera.getWorldDirection(new THREE.Vector3()).multiplyScalar(20).add(camera.position);
    set.draw({ camera, about, height: cell.height, ground: this.ground }, wish.clear && wish.file === 'png');
    if (renderer.getContext().isContextLost()) throw new PainterLost('The browser stopped drawing.');
    return camera;
  }

  private cameraOf(
    eye: PictureEye,
    frame: number,
    aspect: number,
  ): THREE.PerspectiveCamera | THREE.OrthographicCamera {
    if ('free' in eye) return cameraOfFree(eye.free, aspect);
    const { shot } = this.job;
    const rider = shot.riders.find(({ id }) => id === eye.rider);
    const lens = rider && lensAt({ shot, evaluation: this.evaluation }, rider, frame);
    if (!lens) throw new Error('A camera that the pictures are seen through is not in the shot any more.');
    return cameraOf(lens, aspect);
  }
}

/** Rectangles of up to four pictures in one: side by side, or in two rows. */
function cellsOf(count: number, { width, height }: { width: number; height: number }): Cell[] {
  const across = count > 1 ? 2 : 1;
  const down = count > 2 ? 2 : 1;
  const size = { width: Math.floor(width / across), height: Math.floor(height / down) };
  return Array.from({ length: count }, (_, i) => ({
    x: (i % 2) * (width - size.width),
    y: Math.floor(i / 2) * (height - size.height),
    ...size,
  }));
}
