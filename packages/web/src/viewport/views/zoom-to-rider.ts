import * as THREE from 'three';
import type { RiderFigures } from '../figures/rider-figures';
import type { Views } from './views';

/** Metres of room about what is come close to. */
const ROOM = 0.3;

/** Request to zoom to riders, kept until they and their models are there. */
export class ZoomToRider {
  private awaited: readonly string[] | null = null;

  /** @param isPlaced whether riders are where they belong */
  constructor(
    private readonly views: Views,
    private readonly figures: RiderFigures,
    private readonly isPlaced: () => boolean,
  ) {}

  wish(ids: readonly string[]): void {
    this.awaited = ids;
    this.fulfil();
  }

  giveUp(): void {
    this.awaited = null;
  }

  /** Fulfils the request if possible: a free view turns as little as necessary so that nothing hides the riders. */
  fulfil(): void {
    const { awaited, figures } = this;
    if (awaited === null || !this.isPlaced() || !awaited.every((id) => figures.hasCome(id))) return;
    this.awaited = null;
    const box = new THREE.Box3();
    for (const id of awaited) box.union(figures.boxOf(id) ?? new THREE.Box3());
    if (box.isEmpty()) return;
    const except = new Set(awaited);
    this.views.zoomTo(box.expandByScalar(ROOM), (from, to) => figures.standsBetween(from, to, except));
  }
}
