import type { FreeEye, KeptView, Placement, Shot, Vec3 } from '@fleet-rail/core';
import * as THREE from 'three';
import { lineColor, type Theme } from '../../ui/theme/theme';
import { notify } from '../../ui/notices';
import type { DeskState } from '../../state/desk-store';
import type { StepId } from '../../state/steps';
import type { DrawPlace } from '../../edits/drawn-path';
import { BrightLines } from '../lines/bright-lines';
import { brightLines } from '../lines/bright-lines-of';
import { ContactOverlay } from '../lines/contact-overlay';
import { DrawSchedule } from '../drawing/draw-schedule';
import type { DrawingCost } from '../drawing/drawing-cost';
import { LIGHT_PIXELS, type StageQuality } from '../drawing/stage-quality';
import { DrawPreview } from '../lines/draw-preview';
import { SelectedPath } from '../lines/selected-path';
import { Ribbons } from '../lines/ribbons';
import { RiderBadges } from '../labels/rider-badges';
import { followedPlace } from '../views/followed-place';
import { FoundFrame } from '../lines/found-frame';
import { ghostsOf, type Ghost } from '../figures/ghosts';
import { heatShown } from '../lines/heat-shown';
import { GraphicsSide } from '../drawing/graphics-side';
import { HeldPictures } from '../drawing/held-pictures';
import { closeUps, picturesThrough, type Glimpsed, type WantedPicture } from '../views/glimpses';
import { HALF_TURN, freeEyeOf, lensOf } from '../views/lens';
import { lookedThrough } from '../views/looked-through';
import { boxAround } from '../views/box-around';
import { ClearanceCurtain } from '../lines/clearance-curtain';
import { ZoomToRider } from '../views/zoom-to-rider';
import { stageContext } from '../drawing/make-context';
import { Milestones } from '../lines/milestones';
import type { RiderFigures } from '../figures/rider-figures';
import { Outline } from '../set/outline';
import { StageSet, type SetView } from '../set/stage-set';
import { ScreenProjection } from '../labels/screen-projection';
import { SightLines } from '../lines/sight-lines';
import { smoothEdges } from '../drawing/smooth-edges';
import { stageLabels, type StageLabel } from '../labels/stage-labels';
import { isBadge, stepAside } from '../labels/step-aside';
import { SurveyTable } from '../lines/survey-table';
import { StagePicks } from '../pointer/stage-picks';
import { Views } from '../views/views';

/** Draws a desk's state with WebGL, only when something changed. */
export class StageView {
  readonly views: Views;
  /** From the screen into the scene and back. */
  readonly projection: ScreenProjection;
  private readonly renderer: THREE.WebGLRenderer;
  private readonly graphics: GraphicsSide;
  private readonly schedule: DrawSchedule;
  private readonly set: StageSet;
  private readonly outline = new Outline();
  private readonly selected = new SelectedPath();
  private readonly preview = new DrawPreview();
  private readonly bright = new BrightLines();
  /** Pick under the pointer. */
  readonly picks: StagePicks;
  /** Scene, for rays. */
  get figures(): RiderFigures {
    return this.set.figures;
  }
  private readonly ribbons = new Ribbons();
  private state: DeskState | null = null;
  private shownShot: Shot | null = null;
  private seenAttaching: string | null = null;
  private ghosts: readonly Ghost[] = [];
  private readonly sights = new SightLines();
  private readonly contact = new ContactOverlay();
  private hovered: string | null = null;
  private lookedAt: DeskState['lookAt'] = null;
  private readonly close: ZoomToRider;
  private lookedFrom: DeskState['lookFrom'] = null;
  private readonly found = new FoundFrame();
  private readonly curtain = new ClearanceCurtain();
  /** Moves riders without a path. */
  readonly table = new SurveyTable();
  readonly milestones = new Milestones();
  /** Overlays over the scene that are in no picture. */
  private readonly overlays = [
    ...this.selected.parts,
    this.sights,
    this.contact,
    this.found,
    this.curtain,
    this.table,
    this.milestones,
  ];
  private readonly badges: RiderBadges;
  private theme: Theme | null = null;
  /** Whether there is a graphics card to draw with. */
  private readonly smooth = smoothEdges();
  /** Without one pictures are shown when they are done. */
  private readonly held: HeldPictures | null;
  private shown = false;
  private quality: StageQuality;
  /** Whether a picture of a still stage was asked for. */
  private wanted = false;
  /** Whether the last draw made a picture: a still stage only places its labels. */
  private pictured = false;
  /** Label data of the picture that is shown next. */
  private drawn: [labels: readonly StageLabel[], cost: DrawingCost] | null = null;

  constructor(
    canvas: HTMLCanvasElement,
    quality: StageQuality,
    private readonly onDrawn: (labels: readonly StageLabel[], cost: DrawingCost, pictured: boolean) => void,
  ) {
    this.renderer = new THREE.WebGLRenderer({ canvas, ...stageContext() });
    // A canvas with a context and no picture is black.
    canvas.style.opacity = '0';
    const gl = this.renderer.getContext() as WebGL2RenderingContext;
    this.graphics = new GraphicsSide(gl);
    this.held = this.smooth ? null : new HeldPictures(gl);
    canvas.addEventListener('webglcontextrestored', this.goOn);
    this.schedule = new DrawSchedule(
      {
        hasNew: () => !this.isStill && this.set.hasNew(this.state?.ground ?? null),
        prepare: () => this.set.prepare(this.seenFrom(this.views.camera)),
        draw: (first, rests) => this.draw(first, rests),
        show: () => this.show(),
        rest: () => this.rest(),
      },
      (goOn) => this.graphics.whenDone(goOn),
      this.held !== null,
    );
    // One picture may take several passes.
    this.renderer.info.autoReset = false;
    this.set = new StageSet(
      this.renderer,
      this.smooth ? 'cast' : 'patches',
      () => this.redraw(),
      (problem) => notify('error', problem),
    );
    this.quality = quality;
    this.set.plain = quality === 'light';
    this.badges = new RiderBadges(() => this.redraw());
    this.views = new Views(
      canvas,
      () => this.redraw(),
      () => this.close.giveUp(),
    );
    this.close = new ZoomToRider(this.views, this.figures, () => (this.state?.evaluation ?? null) !== null);
    this.projection = new ScreenProjection(canvas, this.views);
    this.picks = new StagePicks(
      this.views,
      this.projection,
      ...this.selected.parts,
      this.contact,
      this.ribbons,
    );
    this.set.scene.add(
      this.preview.object,
      this.bright.object,
      this.ribbons.object,
      ...this.overlays.map(({ object }) => object),
    );
  }

  /** When a lost context is back. */
  private readonly goOn = (): void => {
    this.held?.makeAnew();
    this.set.makeAnew();
    this.wanted ||= this.shown;
    this.redraw();
  };

  /** Changes what pictures may cost. */
  choose(quality: StageQuality): void {
    if (quality === this.quality) return;
    this.quality = quality;
    this.set.plain = quality === 'light';
    this.resize(...this.renderer.getSize(new THREE.Vector2()).toArray());
  }

  /** Draws a still stage: now, and again when all models have come. */
  drawNow(): void {
    const want = () => {
      this.wanted = true;
      this.redraw();
    };
    want();
    void this.set.whole(this.state?.ground ?? null).then(want);
  }

  resize(width: number, height: number): void {
    if (width < 2 || height < 2) return;
    // A canvas of another size is empty until the next picture.
    this.wanted ||= this.shown;
    const ratio = Math.min(2, window.devicePixelRatio) * (this.quality === 'light' ? LIGHT_PIXELS : 1);
    // Both give the canvas a size, and empty it.
    if (ratio !== this.renderer.getPixelRatio()) this.renderer.setPixelRatio(ratio);
    this.renderer.setSize(width, height, false);
    if (this.shown) this.held?.show();
    this.views.resize(width, height);
    this.views.preset(this.contentBox());
    this.fitUnseen();
    this.redraw();
  }

  /** Takes over the desk's state, and draws what differs. */
  update(given: DeskState, theme: Theme, step: StepId): void {
    const showPoints = step === 'path';
    // An import is shown at its own step alone.
    const state = showPoints ? given : { ...given, importing: null };
    this.state = state;
    this.theme = theme;
    this.set.paint(theme);
    if (this.views.current !== state.view) this.views.show(state.view);
    if (this.shownShot !== state.shot) {
      this.set.show(state.shot);
      this.shownShot = state.shot;
    }
    const heat = heatShown(state);
    this.ribbons.show(
      state,
      theme,
      (path) => (heat?.path === path ? heat.heat.values : null),
      // A path that was not there before is brought into view, where it is not seen already.
      (line) => this.views.refitWhereUnseen(new THREE.Box3().setFromArray(line)),
    );
    this.updateFigures(state);
    this.sights.show(state, step === 'facing');
    this.contact.show(state, theme, step === 'contact', this.figures);
    const lens = state.view === 'through' ? lensOf(state) : null;
    if (lens) this.views.lookThrough(lens);
    const path = state.shot.paths.find((other) => other.id === state.pathId);
    this.selected.show(state, theme, showPoints ? path : undefined);
    this.preview.show(state.tool.kind === 'draw' ? state.tool.places : null, state.drawing.kind, theme);
    const result = state.preview && 'preview' in state.preview ? state.preview.preview : null;
    this.bright.show(brightLines(state), theme.signal, state.operation ? result?.positions : undefined);
    this.fitUnseen();
    if (state.lookAt !== this.lookedAt) {
      this.lookedAt = state.lookAt;
      if (state.lookAt) this.fitRiders(state.lookAt.riders);
    }
    if (state.lookFrom !== this.lookedFrom) {
      this.lookedFrom = state.lookFrom;
      if (state.lookFrom) this.views.standAt(state.lookFrom);
    }
    const follows = state.view === 'free' ? followedPlace(state) : null;
    if (follows) this.views.follow(follows);
    this.curtain.show(state, step === 'facing' || step === 'contact');
    this.table.show(state, theme, step === 'attach');
    this.milestones.show(state, theme, step === 'attach' || step === 'pace');
    this.found.show(step === 'check' ? state.lookAt : null, this.figures, theme);
    this.redraw();
  }

  /** Placement of the free view, as that of a camera rider. */
  eye(): Placement {
    const { position, turn } = this.views.eye();
    return { translation: position.toArray(), rotation: turn.multiply(HALF_TURN).toArray() };
  }

  /** Eye of the present view at a frame, for pictures of the same. */
  seen(frame: number): FreeEye {
    const { state } = this;
    const follows = state && this.views.current === 'free' ? followedPlace({ ...state, frame }) : null;
    return freeEyeOf(follows ? this.views.followed(follows) : this.views.camera);
  }

  /** Position and target of the free view. */
  stands(): Pick<KeptView, 'from' | 'at'> {
    return this.views.stands();
  }

  /** Brings everything into the present view. */
  fit(): void {
    this.close.giveUp();
    this.views.fit(this.contentBox());
    this.redraw();
  }

  /** Brings riders close in the present view, as soon as they and their models are there. */
  fitRiders(ids: readonly string[]): void {
    this.close.wish(ids);
    this.redraw();
  }

  /** See {@link closeUps}. */
  closeUps(frames: readonly number[], riderId: string | null): string[] {
    return this.glimpse([], (glimpsed) => closeUps(glimpsed, frames, riderId));
  }

  /** See {@link picturesThrough}. */
  picturesThrough(wanted: readonly WantedPicture[], width: number): string[] {
    const tools = [...this.overlays, this.ribbons, this.bright, this.preview].map(({ object }) => object);
    return this.glimpse([this.set.grid.lines, ...tools], (glimpsed) =>
      picturesThrough(glimpsed, wanted, width),
    );
  }

  /** Draws something else for a moment, some of what is shown left out; the desk stays where it is. */
  private glimpse(hidden: readonly THREE.Object3D[], take: (glimpsed: Glimpsed) => string[]): string[] {
    const { state, renderer, figures, views } = this;
    if (state === null) return [];
    const shown = hidden.map(({ visible }) => visible);
    for (const object of hidden) object.visible = false;
    figures.fadeBefore(views.camera.position, null);
    const given: Glimpsed = {
      state,
      renderer,
      figures,
      camera: views.camera,
      pose: (there) => this.updateFigures(there),
      render: (camera) => this.render(camera),
    };
    const images = this.held ? this.held.directly(() => take(given)) : take(given);
    hidden.forEach((object, i) => (object.visible = shown[i]));
    this.updateFigures(state);
    this.redraw();
    return images;
  }

  /** Lets the path in the making follow the pointer. */
  hoverDraw(place: DrawPlace | null): void {
    this.preview.setHover(place);
    this.redraw();
  }

  /** Highlights the path that a click would pick. */
  hoverPath(id: string | null): void {
    if (id === this.hovered) return;
    this.hovered = id;
    this.redraw();
  }

  redraw(): void {
    this.schedule.ask();
  }

  dispose(): void {
    this.schedule.dispose();
    this.graphics.dispose();
    this.ribbons.dispose();
    for (const overlay of this.overlays) overlay.dispose();
    this.bright.dispose();
    this.badges.dispose();
    this.preview.dispose();
    this.outline.dispose();
    this.set.dispose();
    this.views.dispose();
    this.held?.dispose();
    this.renderer.domElement.removeEventListener('webglcontextrestored', this.goOn);
    this.renderer.dispose();
  }

  private get isStill(): boolean {
    return this.quality === 'still' && !this.wanted;
  }

  private draw(first: boolean, rests: boolean): boolean {
    const still = this.isStill;
    this.close.fulfil();
    this.held?.begin();
    const { camera } = this.views;
    camera.updateMatrixWorld();
    const middle = this.contentBox().getCenter(new THREE.Vector3());
    this.ribbons.update(
      (place) => this.views.metresPerPixel(place),
      // The ribbon is hidden where marks on the ground are shown.
      (id) =>
        id === this.hovered ? 1.8 : this.contact.object.visible && id === this.state?.pathId ? 0.3 : 1,
    );
    const { plumb, overlay, visible: points } = this.selected;
    if (points) {
      overlay.update(this.views.metresPerPixel(middle));
      plumb.update(this.spanAt, this.views.current !== 'plan');
    }
    this.table.update(this.spanAt);
    this.figures.hide(this.state?.view === 'through' ? (lookedThrough(this.state)?.id ?? null) : null);
    this.figures.hideAround(camera.position);
    const begun = performance.now();
    const { info } = this.renderer;
    const programs = info.programs?.length;
    info.reset();
    const outlined = this.quality === 'full' ? this.smooth || rests : this.quality === 'still';
    if (still) this.set.place(this.state?.ground ?? null);
    else {
      if (first) this.set.drawPlace(this.seenFrom(camera));
      else this.render(camera);
      if (!first && outlined) this.drawOutline(camera);
    }
    this.pictured = !still;
    this.wanted &&= first;
    const grew = () => info.programs?.length !== programs;
    if (this.state === null || this.theme === null) return grew();
    const marks = points ? overlay.marks : [];
    const stones = this.milestones.object.visible ? this.milestones.stones : [];
    const labels = stageLabels(this.state, points ? plumb.positions : [], marks, this.ghosts, stones);
    const placed = labels.flatMap(({ position, ...label }) => {
      const at = this.projection.toScreen(position);
      return at ? [{ ...label, ...at }] : [];
    });
    const written = stepAside(placed);
    if (!still) this.badges.draw(this.renderer, this.state.shot.riders, this.theme, written.filter(isBadge));
    const { calls, triangles } = info.render;
    const cost = { ms: performance.now() - begun, calls, triangles };
    this.drawn = [written.filter((label) => !isBadge(label)), cost];
    return grew();
  }

  private show(): void {
    if (this.pictured) {
      this.held?.show();
      this.shown = true;
    }
    // A picture that is older than the labels over it is faint.
    this.renderer.domElement.style.opacity = this.pictured ? '' : this.shown ? '0.45' : '0';
    if (this.drawn) this.onDrawn(...this.drawn, this.pictured);
  }

  /** When nothing has changed for a moment, what hides the chosen rider fades, and without a graphics card its outline is drawn. */
  private rest(): boolean {
    if (this.quality === 'still') return false;
    const { view, riderId } = this.state ?? { view: null, riderId: null };
    const fades = this.figures.fadeBefore(this.views.camera.position, view === 'free' ? riderId : null);
    return fades || (!this.smooth && this.quality === 'full');
  }

  private render(camera: THREE.Camera): void {
    this.set.draw(this.seenFrom(camera));
  }

  private seenFrom(camera: THREE.Camera): SetView {
    const height = this.renderer.domElement.height / this.renderer.getPixelRatio();
    return { camera, about: this.views.target, height, ground: this.state?.ground ?? null };
  }

  /** The chosen rider has a line around it, where it is not looked through a camera. */
  private drawOutline(camera: THREE.Camera): void {
    const rider = this.state?.shot.riders.find(({ id }) => id === this.state?.riderId);
    const chosen = rider && this.state?.view !== 'through' ? this.figures.groupOf(rider.id) : null;
    this.outline.draw(this.renderer, this.set.scene, camera, chosen, lineColor(rider?.color ?? 0));
  }

  private updateFigures(state: DeskState): void {
    const { evaluation, frame, shot, attaching } = state;
    if (evaluation) this.set.pose(shot, evaluation, frame);
    const ghosts = ghostsOf(state);
    this.ghosts = ghosts;
    this.figures.showGhosts(shot, ghosts);
    if (ghosts.length > 0 && attaching !== null && attaching.plan.path !== this.seenAttaching) {
      const [x, y, z] = ghosts[0].pose;
      const around = new THREE.Box3().setFromCenterAndSize(
        new THREE.Vector3(x, y, z),
        new THREE.Vector3(6, 4, 6),
      );
      this.views.refitWhereUnseen(around);
    }
    this.seenAttaching = attaching?.plan.path ?? null;
  }

  private fitUnseen(): void {
    if (this.state?.evaluation) this.views.fit(this.contentBox(), true);
  }

  private contentBox(): THREE.Box3 {
    return boxAround(this.ribbons.lines);
  }

  private readonly spanAt = (place: Vec3): number => this.views.metresPerPixel(new THREE.Vector3(...place));
}
