import type { GroundMesh, Shot } from '@fleet-rail/core';
import * as THREE from 'three';
import { groundHeightOf } from '../../workers/scene-assets/ground-height';
import type { Theme } from '../../ui/theme/theme';
import type { Evaluation } from '../../workers/evaluation/evaluation';
import { RiderFigures } from '../figures/rider-figures';
import { ContactShadows } from './contact-shadows';
import { Daylight } from './daylight';
import { DressingFigures } from './dressing-figures';
import { SetModels } from './set-models';
import { Sky } from './sky';
import { SprayFigures } from './spray-figures';
import { Surroundings } from './surroundings';
import { SurveyGrid } from './survey-grid';

/** Kind of shadows: cast by the sun, which takes a graphics card or time, or soft patches under things on the ground. */
export type ShadowKind = 'cast' | 'patches';

/** Camera and size of a picture of the set. */
export interface SetView {
  readonly camera: THREE.Camera;
  /** Target of the view. */
  readonly about: THREE.Vector3;
  /** Of the picture, pixels. */
  readonly height: number;
  readonly ground: GroundMesh | null;
}

/** Set of a picture: figures and ground, under a sky, in daylight or at night. */
export class StageSet {
  readonly scene = new THREE.Scene();
  readonly grid = new SurveyGrid();
  readonly figures: RiderFigures;
  /** Dressing along paths. */
  readonly laid: DressingFigures;
  private readonly sprays: SprayFigures;
  private readonly models: SetModels;
  private shot: Shot | null = null;
  private readonly sky = new Sky();
  private readonly daylight = new Daylight();
  private readonly patches = new ContactShadows();
  private readonly surroundings = new Surroundings();
  private theme: Theme | null = null;
  private lit = -1;
  /** Whether shadows are left out. */
  plain = false;

  /**
   * @param redraw called when a model has come
   * @param tell   takes what went wrong, in words
   */
  constructor(
    private readonly renderer: THREE.WebGLRenderer,
    private readonly shadows: ShadowKind,
    redraw: () => void,
    tell: (problem: string) => void,
  ) {
    this.figures = new RiderFigures(redraw, tell);
    this.models = new SetModels(this.figures.models, redraw, tell);
    this.laid = new DressingFigures(this.models);
    this.sprays = new SprayFigures(this.models, shadows === 'patches');
    renderer.shadowMap.enabled = shadows === 'cast';
    renderer.shadowMap.type = THREE.PCFSoftShadowMap;
    this.scene.add(
      this.sky.object,
      this.daylight.object,
      this.grid.object,
      this.patches.object,
      this.figures.object,
      this.laid.object,
      this.sprays.object,
    );
  }

  paint(theme: Theme): void {
    if (this.theme === theme) return;
    this.theme = theme;
    this.lit = -1;
    this.grid.paint(theme);
    this.sky.paint(theme);
    this.daylight.paint(theme);
    this.sprays.paint(theme);
  }

  show(shot: Shot): void {
    this.shot = shot;
    this.figures.show(shot);
  }

  /** Puts all that moves where it is at a frame. */
  pose(shot: Shot, evaluation: Evaluation, frame: number): void {
    this.figures.pose(evaluation, frame);
    this.sprays.pose(shot, evaluation, frame);
  }

  /** Settles when all models that are seen have come. */
  async whole(ground: GroundMesh | null): Promise<void> {
    const { shot } = this;
    if (shot) {
      this.laid.show(shot, ground);
      for (const { emitter } of shot.riders) {
        const asset = shot.models.find(({ id }) => id === emitter?.model)?.source.asset;
        if (asset !== undefined) this.models.of(asset);
      }
    }
    await Promise.all([this.figures.whole(), this.models.whole()]);
  }

  /** Whether models have come that no picture was of. */
  hasNew(ground: GroundMesh | null): boolean {
    this.lay(ground);
    return this.lit !== this.changes;
  }

  /** Asks for all that is drawn by, without drawing: a picture of what is new would stop the page until that is there. */
  prepare(view: SetView): void {
    this.stand(view.ground);
    this.light();
    this.arrange(view);
    for (const object of this.scene.children)
      if (object.visible) this.renderer.compile(object, view.camera, this.scene);
  }

  /**
   * Draws it, with whatever else is in the scene. What is left out of the picture is hidden before.
   *
   * @param clear without what lies behind everything
   */
  draw(view: SetView, clear = false): void {
    const { scene, renderer } = this;
    this.stand(view.ground);
    this.light();
    this.arrange(view);
    this.grid.object.visible = !clear;
    if (clear) {
      this.sky.object.visible = false;
      scene.background = scene.fog = null;
    }
    renderer.render(scene, view.camera);
  }

  /** Puts all where it is without a picture: what is picked is found by that. */
  place(ground: GroundMesh | null): void {
    this.stand(ground);
    this.scene.updateMatrixWorld();
  }

  /** Draws ground and sky alone. */
  drawPlace(view: SetView): void {
    const place: readonly THREE.Object3D[] = [this.sky.object, this.daylight.object, this.grid.object];
    const others = this.scene.children.filter((object) => object.visible && !place.includes(object));
    this.arrange(view);
    for (const object of others) object.visible = false;
    this.renderer.render(this.scene, view.camera);
    for (const object of others) object.visible = true;
  }

  /** Grows with every model that comes or goes. */
  private get changes(): number {
    return this.figures.changes + this.laid.changes;
  }

  private stand(ground: GroundMesh | null): void {
    this.figures.drawCopies();
    this.lay(ground);
  }

  private lay(ground: GroundMesh | null): void {
    if (this.shot) this.laid.show(this.shot, ground);
  }

  /** To be called when a lost context is back: what was painted in it is gone. */
  makeAnew(): void {
    this.surroundings.dispose();
    this.lit = -1;
  }

  /** Gives models that have come something to reflect. */
  private light(): void {
    if (this.lit === this.changes) return;
    const night = this.theme?.mode === 'night';
    for (const object of [this.figures.object, this.laid.object])
      this.surroundings.light(object, this.renderer, night);
    this.lit = this.changes;
  }

  /** Puts sky, light and ground where they are for a view. */
  private arrange({ camera, about, height, ground }: SetView): void {
    const { scene, figures } = this;
    this.sprays.face(camera);
    const content = figures.box().union(this.laid.box());
    const built = figures.groundBox();
    this.grid.leaveOut(built);
    const around = content.getBoundingSphere(new THREE.Sphere());
    const level = ground?.level ?? 0;
    const haze = this.sky.update(scene, camera, around, this.shadows === 'cast');
    this.grid.update(camera, about, height, haze, level);
    this.daylight.cast(!this.plain && this.shadows === 'cast' && !content.isEmpty(), built);
    this.daylight.update(camera, content, level);
    this.patches.object.visible = !this.plain && this.shadows === 'patches';
    if (this.patches.object.visible) this.patches.update(figures.standing(), groundHeightOf(ground));
  }

  dispose(): void {
    for (const part of [
      this.grid,
      this.sky,
      this.daylight,
      this.patches,
      this.surroundings,
      this.figures,
      this.laid,
      this.sprays,
    ])
      part.dispose();
  }
}
