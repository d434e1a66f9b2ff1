import type { Importing } from './importing';
import type { AttachPlan, KeptView, Shot } from '@fleet-rail/core';
import type { DrawKind } from '../edits/drawn-path';
import type { Operation } from '../workers/operations/operation';
import type { PreviewResult } from '../workers/operations/preview-client';

export type ViewName = 'free' | 'plan' | 'side' | 'front' | 'through';

/** From which side the free view follows a rider. */
export const FOLLOWING = ['behind', 'beside', 'above'] as const;
export type Following = (typeof FOLLOWING)[number];

/** How clicks become points, and what they snap to. */
export interface DrawSettings {
  readonly kind: DrawKind;
  /** Metres; 0 for no grid. */
  readonly grid: number;
  readonly toPoints: boolean;
  readonly toGround: boolean;
  /** How far above the ground it snaps to, metres. */
  readonly above: number;
  /** Within which the points beside those that are moved are taken along, metres along the path; 0 for none. */
  readonly softRadius: number;
  /** Seconds from one click to the next, of something that rides what is drawn; null for a path alone. */
  readonly seconds: number | null;
}

/** Riders shown where they would land, before that is accepted. */
export interface Attaching {
  readonly riders: readonly string[];
  readonly plan: AttachPlan;
}

/** A shot with riders more than there are, shown before it is accepted. */
export interface ShownBefore {
  readonly shot: Shot;
  /** The riders that would be new, or placed anew. */
  readonly riders: readonly string[];
}

/** Overlays on the stage beside paths and riders. */
export interface Shows {
  readonly comb: boolean;
  readonly polygon: boolean;
  /** Ghosts of the selected rider every number of frames; 0 for none. */
  readonly ghosts: number;
  /** Quantity that colours the ribbon of the selected rider. */
  readonly heat: 'none' | 'speed' | 'bank';
  /** Lines from the selected rider to what it aims at. */
  readonly sights: boolean;
}

/** Content and extent of the run diagram. */
export interface DiagramShown {
  /** Riders of the selected rider's path alone, or every path one above another. */
  readonly paths: 'own' | 'all';
  /** The frames, and the metres of the selected rider's path, that are in view; null for all. */
  readonly frames: readonly [number, number] | null;
  readonly metres: readonly [number, number] | null;
  readonly axis: 'frames' | 'seconds' | 'timecode';
  readonly strip: 'speed' | 'acceleration' | 'sideways';
}

/** View state of stage and diagram, and previews. */
export interface Shown {
  readonly view: ViewName;
  /** Camera of the view through a camera; null for the one of the cuts. */
  readonly through: string | null;
  readonly diagram: DiagramShown;
  /** The first and the last frame are shown beside each other. */
  readonly seam: boolean;
  /** Pictures of cameras side by side: at this frame, or cut by cut. */
  readonly beside: 'cameras' | 'cuts' | null;
  readonly drawing: DrawSettings;
  readonly shows: Shows;
  readonly attaching: Attaching | null;
  readonly shownBefore: ShownBefore | null;
  /** File that was read, until it is decided what is imported. */
  readonly importing: Importing | null;
  /** Target for a free view; a new object asks again. */
  readonly lookAt: { readonly riders: readonly string[] } | null;
  /** A view that is to be taken; a new object asks anew. */
  readonly lookFrom: Pick<KeptView, 'from' | 'at'> | null;
  /** From where the free view follows the selected rider. */
  readonly follow: Following | null;
  /** An operation on the selected path that is being set up, and what it would give. */
  readonly operation: Operation | null;
  readonly preview: PreviewResult | null;
  /** Whether this desk renders the pictures of its shot, or leaves them to others. */
  readonly drawsHere: boolean;
  /** Whether the stage shows its drawing statistics. */
  readonly stats: boolean;
}

export const newShown = (): Shown => ({
  view: 'free',
  through: null,
  diagram: { paths: 'own', frames: null, metres: null, axis: 'frames', strip: 'speed' },
  seam: false,
  beside: null,
  drawing: {
    kind: 'bezier',
    grid: 0.1,
    toPoints: true,
    toGround: false,
    above: 0,
    softRadius: 0,
    seconds: null,
  },
  shows: { comb: false, polygon: true, ghosts: 0, heat: 'none', sights: true },
  attaching: null,
  shownBefore: null,
  importing: null,
  lookAt: null,
  lookFrom: null,
  follow: null,
  operation: null,
  preview: null,
  drawsHere: true,
  stats: false,
});

/** View state as far as another document has it. */
export function keptShown({ attaching, operation, through, view }: Shown, shot: Shot): Partial<Shown> {
  const has = (list: readonly { id: string }[], id: string) => list.some((one) => one.id === id);
  const lands =
    attaching !== null &&
    attaching.riders.every((id) => has(shot.riders, id)) &&
    has(shot.paths, attaching.plan.path);
  const cameras = shot.riders.filter(({ camera }) => camera !== null);
  return {
    attaching: lands ? attaching : null,
    shownBefore: null,
    through: through !== null && has(cameras, through) ? through : null,
    view: view === 'through' && cameras.length === 0 ? 'free' : view,
    operation: operation && has(shot.paths, operation.path) ? operation : null,
  };
}
