import { PathError, compiledPathOf, controlPolygon, toWorld, type ShotPath } from '@fleet-rail/core';
import type { DeskState } from '../../state/desk-store';
import type { Theme } from '../../ui/theme/theme';
import { CurveOverlay } from './curve-overlay';
import { PlumbLines } from './plumb-lines';

/** Points, handles and what else is drawn over the selected path. */
export class SelectedPath {
  readonly plumb = new PlumbLines();
  readonly overlay = new CurveOverlay();
  readonly parts = [this.plumb, this.overlay] as const;
  /** Inputs that both were last drawn from. */
  private drawn: readonly unknown[] = [];

  /** Whether its points are shown. */
  get visible(): boolean {
    return this.plumb.object.visible;
  }

  show(state: DeskState, theme: Theme, path: ShotPath | undefined): void {
    // While an operation is set up its result replaces the points, unless one of them is to be clicked.
    const operating = state.operation !== null && state.operation.kind !== 'first';
    const shown = path !== undefined && state.tool.kind !== 'draw' && !operating;
    this.plumb.object.visible = this.overlay.object.visible = shown;
    const facts = (path && state.evaluation?.paths.get(path.id)?.facts) ?? null;
    const inputs = [path, facts, state.points, state.shows, theme];
    if (!shown || inputs.every((input, i) => input === this.drawn[i])) return;
    this.drawn = inputs;
    this.plumb.show(
      path.points.map((point) => toWorld(path.transform, point.position)),
      path.points.map((point) => point.off),
      state.points,
      theme,
    );
    const wants = state.shows.comb || path.marks.length > 0 || (facts?.kinks.length ?? 0) > 0;
    const compiled = wants ? compiledPathOf(path) : null;
    const curve = compiled instanceof PathError ? null : compiled;
    this.overlay.showPolygon(state.shows.polygon ? controlPolygon(path) : null, state.points, theme);
    this.overlay.showComb(state.shows.comb ? curve : null, theme);
    this.overlay.showKinks(curve, facts, theme);
    this.overlay.showMarks(curve, path.marks, theme);
  }
}
