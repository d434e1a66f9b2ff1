import type { Shot } from '@fleet-rail/core';
import * as THREE from 'three';
import type { Evaluation } from '../../workers/evaluation/evaluation';
import { lineColor, type Theme } from '../../ui/theme/theme';
import { Ribbon } from './ribbon';

const RIBBON_METRES = 0.22;
const RIBBON_PIXELS = 2.4;
const WIDEST = 20;

/** Inputs of ribbons. */
export interface RibbonPaint {
  readonly shot: Shot;
  readonly evaluation: Evaluation | null;
  /** The chosen path and rider. */
  readonly pathId: string | null;
  readonly riderId: string | null;
}

/** The paths on the stage, each in the colour of who rides it. */
export class Ribbons {
  readonly object = new THREE.Group();
  private readonly drawn = new Map<string, { frames: Float64Array; ribbon: Ribbon }>();

  /** The centre lines, x, y, z a place. */
  get lines(): Float32Array[] {
    return [...this.drawn.values()].map(({ ribbon }) => ribbon.line);
  }

  /** The centre line of each path. */
  *byPath(): Generator<[path: string, line: Float32Array], void> {
    for (const [id, { ribbon }] of this.drawn) yield [id, ribbon.line];
  }

  /**
   * @param heat    by path how its ribbon is coloured place by place; null for its own colour
   * @param isNew   told of lines that were not there before
   */
  show(
    { shot, evaluation, pathId, riderId }: RibbonPaint,
    theme: Theme,
    heat: (path: string) => Float32Array | null,
    isNew: (line: Float32Array) => void = () => undefined,
  ): void {
    const paths = evaluation?.paths;
    for (const id of this.drawn.keys()) if (!paths?.has(id)) this.drop(id);
    for (const path of paths?.values() ?? []) {
      const before = this.drawn.get(path.id);
      if (before?.frames !== path.frames) {
        this.drop(path.id);
        if (path.frames.length === 0) continue;
        const ribbon = new Ribbon(path);
        this.drawn.set(path.id, { frames: path.frames, ribbon });
        if (!before) isNew(ribbon.line);
        this.object.add(ribbon.object);
      }
      const on = shot.riders.filter(({ attachment }) => attachment?.path === path.id);
      const rider = on.find(({ id }) => id === riderId) ?? on[0];
      const color = rider ? lineColor(rider.color) : theme.idlePath;
      const ribbon = this.drawn.get(path.id)?.ribbon;
      ribbon?.paint(color, theme.panel, path.id === pathId, rider !== undefined && rider.frozen !== null);
      ribbon?.setHeat(heat(path.id));
    }
  }

  /**
   * To be called before a picture is drawn.
   *
   * @param spanAt metres that a pixel spans at a place
   * @param wider  by path how much wider than others it is
   */
  update(spanAt: (place: THREE.Vector3) => number, wider: (path: string) => number = () => 1): void {
    for (const [id, { ribbon }] of this.drawn) {
      const span = spanAt(new THREE.Vector3().fromArray(ribbon.line));
      ribbon.setHalfWidth(wider(id) * Math.max(RIBBON_METRES, Math.min(RIBBON_PIXELS * span, WIDEST)));
    }
  }

  dispose(): void {
    for (const id of this.drawn.keys()) this.drop(id);
  }

  private drop(id: string): void {
    const ribbon = this.drawn.get(id)?.ribbon;
    if (ribbon === undefined) return;
    this.object.remove(ribbon.object);
    ribbon.dispose();
    this.drawn.delete(id);
  }
}
