import type { GroundMesh, AttachPlan, NodeHierarchy, Shot, Vec3 } from '@fleet-rail/core';
import type { KeptModel } from '../api/models';
import type { DrawKind, DrawPlace } from '../edits/drawn-path';
import { createContext, useContext } from 'react';
import { useStore } from 'zustand';
import { createStore, type StoreApi } from 'zustand/vanilla';
import type { Edit } from '../edits/edit';
import type { AsideEvaluation, Evaluation } from '../evaluation/evaluation';
import type { Operation } from '../operations/operation';
import type { PreviewResult } from '../operations/preview-client';

export type ViewName = 'free' | 'plan' | 'side' | 'front' | 'through';

/** What a click in the stage means; it goes back to `select` by itself. */
export type Tool =
  | { readonly kind: 'select' }
  | { readonly kind: 'draw'; readonly places: readonly DrawPlace[] }
  | { readonly kind: 'pickPath'; readonly riders: readonly string[] }
  /** The next click on the path of the riders being attached says where it starts. */
  | { readonly kind: 'pickStart' }
  /** The next click on a rider, or on the ground, is what this rider aims at. */
  | { readonly kind: 'pickTarget'; readonly riderId: string }
  /** The next click on the selected path's curve puts a point, or a mark, there. */
  | { readonly kind: 'insert' }
  | { readonly kind: 'mark' }
  /** The next click on the rider's path makes it stop there; the next drag along it makes a slow stretch. */
  | { readonly kind: 'pickStop'; readonly riderId: string }
  | { readonly kind: 'dragZone'; readonly riderId: string }
  /** The next drag chooses the points in a box. */
  | { readonly kind: 'box' }
  /** Clicks on edges of models pick runs of them. */
  | { readonly kind: 'edges'; readonly runs: readonly EdgePick[] };

/** A run of mesh edges that was picked. */
export interface EdgePick {
  readonly places: readonly Vec3[];
  readonly closed: boolean;
}

/** How clicks become points, and what they snap to. */
export interface DrawSettings {
  readonly kind: DrawKind;
  /** Metres; 0 for no grid. */
  readonly grid: number;
  readonly toPoints: boolean;
  readonly toGround: boolean;
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

/** What is drawn on the stage beside paths and riders. */
export interface Shows {
  readonly comb: boolean;
  readonly polygon: boolean;
  /** Ghosts of the selected rider every so many frames; 0 for none. */
  readonly ghosts: number;
  /** What the ribbon of the selected rider is coloured by. */
  readonly heat: 'none' | 'speed' | 'bank';
  /** Lines from the selected rider to what it aims at. */
  readonly sights: boolean;
}

/** What the run diagram shows, and how much of it. */
export interface DiagramShown {
  /** Riders of the selected rider's path alone, or every path one above another. */
  readonly paths: 'own' | 'all';
  /** The frames, and the metres of the selected rider's path, that are in view; null for all. */
  readonly frames: readonly [number, number] | null;
  readonly metres: readonly [number, number] | null;
  readonly axis: 'frames' | 'seconds' | 'timecode';
  readonly strip: 'speed' | 'acceleration' | 'sideways';
}

interface Step {
  readonly label: string;
  readonly shot: Shot;
}

export interface DeskState {
  readonly shot: Shot;
  /** Documents before the present one, oldest first, each with what was done to it. */
  readonly past: readonly Step[];
  /** Documents that undo left behind, the next one first. */
  readonly future: readonly Step[];
  /** The drag that the newest step belongs to; its later values replace that step. */
  readonly gesture: string | null;
  readonly evaluation: Evaluation | null;
  /** Of a shot that is shown before it is accepted, or compared with. */
  readonly aside: AsideEvaluation | null;
  readonly pathId: string | null;
  readonly points: ReadonlySet<number>;
  readonly riderId: string | null;
  /** Chosen keys of the selected rider's pace. */
  readonly keys: ReadonlySet<number>;
  readonly diagram: DiagramShown;
  /** Which take of the selected rider is compared with; null for none. */
  readonly take: number | null;
  /** The first and the last frame are shown beside each other. */
  readonly seam: boolean;
  readonly frame: number;
  readonly playing: boolean;
  readonly everyFrame: boolean;
  readonly view: ViewName;
  readonly tool: Tool;
  readonly attaching: Attaching | null;
  readonly shownBefore: ShownBefore | null;
  /** The camera that the view through a camera is of; null for the one the cuts say. */
  readonly through: string | null;
  /** Models the server keeps, with what was read from them. */
  readonly models: readonly KeptModel[];
  readonly drawing: DrawSettings;
  readonly shows: Shows;
  /** An operation on the selected path that is being set up, and what it would give. */
  readonly operation: Operation | null;
  readonly preview: PreviewResult | null;
  /** The triangles of the shot's ground, and what can move of models, by the document's ids; as far as they are read. */
  readonly ground: GroundMesh | null;
  readonly hierarchies: ReadonlyMap<string, NodeHierarchy>;
}

export interface DeskActions {
  /** Does an edit; edits of one gesture are undone together. */
  edit(label: string, edit: Edit, gesture?: string): void;
  undo(): void;
  redo(): void;
  /** Puts a whole other document in place, as one step that can be undone. */
  replace(label: string, shot: Shot): void;
  set(change: Partial<Omit<DeskState, 'shot' | 'past' | 'future' | 'gesture'>>): void;
  goToFrame(frame: number): void;
}

export type DeskStore = StoreApi<DeskState & DeskActions>;

const STEPS_KEPT = 500;

/** The state of one open desk. The document is plain immutable data; undo is a list of documents. */
export function createDesk(shot: Shot): DeskStore {
  return createStore<DeskState & DeskActions>((set, get) => ({
    shot,
    past: [],
    future: [],
    gesture: null,
    evaluation: null,
    aside: null,
    pathId: shot.paths[0]?.id ?? null,
    points: new Set(),
    riderId: shot.riders[0]?.id ?? null,
    keys: new Set(),
    diagram: { paths: 'own', frames: null, metres: null, axis: 'frames', strip: 'speed' },
    take: null,
    seam: false,
    frame: shot.range.first,
    playing: false,
    everyFrame: false,
    view: 'free',
    tool: { kind: 'select' },
    attaching: null,
    shownBefore: null,
    through: null,
    models: [],
    drawing: { kind: 'bezier', grid: 0.1, toPoints: true, toGround: false },
    shows: { comb: false, polygon: true, ghosts: 0, heat: 'none', sights: true },
    operation: null,
    preview: null,
    ground: null,
    hierarchies: new Map(),

    edit(label, edit, gesture) {
      const { shot: before, past, gesture: current } = get();
      const continues = gesture !== undefined && gesture === current;
      const after = edit(before, (continues && past.at(-1)?.shot) || before);
      if (isSame(after, before)) return;
      const begun = continues ? past.at(-1) : undefined;
      // A gesture that has come back to where it began has done nothing.
      const undone = begun !== undefined && isSame(after, begun.shot);
      set({
        ...keptSelection(get(), after),
        shot: undone ? begun.shot : after,
        past: undone
          ? past.slice(0, -1)
          : continues
            ? past
            : [...past.slice(-STEPS_KEPT), { label, shot: before }],
        future: [],
        gesture: undone ? null : (gesture ?? null),
      });
    },
    undo() {
      const { past, future, shot: present } = get();
      const step = past.at(-1);
      if (step === undefined) return;
      const undone = { label: step.label, shot: present };
      set({
        ...keptSelection(get(), step.shot),
        shot: step.shot,
        past: past.slice(0, -1),
        future: [undone, ...future],
        gesture: null,
      });
    },
    redo() {
      const { past, future, shot: present } = get();
      const [step, ...rest] = future;
      if (step === undefined) return;
      const redone = { label: step.label, shot: present };
      set({
        ...keptSelection(get(), step.shot),
        shot: step.shot,
        past: [...past, redone],
        future: rest,
        gesture: null,
      });
    },
    replace(label, next) {
      get().edit(label, () => next);
    },
    set(change) {
      // Keys and takes are those of one rider.
      const other = change.riderId !== undefined && change.riderId !== get().riderId;
      set(other ? { keys: new Set(), take: null, ...change } : change);
    },
    goToFrame(frame) {
      const { first, last } = get().shot.range;
      set({ frame: Math.min(last, Math.max(first, frame)) });
    },
  }));
}

/** Whether two documents say the same; what they share is not looked at. */
function isSame(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  const keys = Object.keys(a);
  return (
    keys.length === Object.keys(b).length &&
    keys.every((key) => isSame(a[key as keyof typeof a], b[key as keyof typeof b]))
  );
}

/** What is selected, kept only as far as it exists in another document. */
function keptSelection(state: DeskState, shot: Shot): Partial<DeskState> {
  const path = shot.paths.find((other) => other.id === state.pathId);
  const rider = shot.riders.find((other) => other.id === state.riderId);
  const { attaching, operation } = state;
  const lands =
    attaching !== null &&
    attaching.riders.every((id) => shot.riders.some((other) => other.id === id)) &&
    shot.paths.some((other) => other.id === attaching.plan.path);
  const count = rider?.id === state.riderId ? (rider?.hitch?.pace.keys.length ?? 0) : 0;
  const takes = rider?.id === state.riderId ? (rider?.hitch?.takes.length ?? 0) : 0;
  const camera = shot.riders.find((other) => other.id === state.through && other.camera !== null);
  return {
    pathId: path?.id ?? shot.paths[0]?.id ?? null,
    points: path ? new Set([...state.points].filter((i) => i < path.points.length)) : new Set(),
    riderId: rider?.id ?? shot.riders[0]?.id ?? null,
    keys: [...state.keys].every((i) => i < count) ? state.keys : new Set(),
    take: state.take !== null && state.take < takes ? state.take : null,
    attaching: lands ? attaching : null,
    shownBefore: null,
    through: camera?.id ?? null,
    view: state.view === 'through' && !shot.riders.some((other) => other.camera) ? 'free' : state.view,
    operation: operation && shot.paths.some((other) => other.id === operation.path) ? operation : null,
    frame: Math.min(shot.range.last, Math.max(shot.range.first, state.frame)),
  };
}

export const DeskContext = createContext<DeskStore | null>(null);

/** The open desk's store, for handlers that read the newest state. */
export function useDeskStore(): DeskStore {
  const store = useContext(DeskContext);
  if (store === null) throw new Error('No desk is open here.');
  return store;
}

/** A part of the open desk's state. */
export function useDesk<T>(select: (state: DeskState & DeskActions) => T): T {
  return useStore(useDeskStore(), select);
}

export const useSelectedPath = () =>
  useDesk(({ shot, pathId }) => shot.paths.find((path) => path.id === pathId) ?? null);
export const useSelectedRider = () =>
  useDesk(({ shot, riderId }) => shot.riders.find((rider) => rider.id === riderId) ?? null);
