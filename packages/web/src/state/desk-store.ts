import type { Shot } from '@fleet-rail/core';
import { createContext, useContext } from 'react';
import { useStore } from 'zustand';
import { createStore, type StoreApi } from 'zustand/vanilla';
import type { Edit } from '../edits/edit';
import { edited, newHistory, redone, undone, type History } from './history';
import { newLoaded, type Loaded } from './loaded';
import { frameWithin, newPlayback, type Playback } from './playback';
import { keptSelection, newSelection, shownChannel, type Selection } from './selection';
import { keptShown, newShown, type Shown } from './shown';

export type { EdgePick, Tool } from './selection';
export type { Attaching, DiagramShown, DrawSettings, Shows, ShownBefore, ViewName } from './shown';

/** All that an open desk holds: one document with its history, what is chosen and shown, where it plays, what is loaded. */
export type DeskState = History & Selection & Playback & Shown & Loaded;

export interface DeskActions {
  /** Does an edit; edits of one gesture are undone together. */
  edit(label: string, edit: Edit, gesture?: string): void;
  undo(): void;
  redo(): void;
  /** Puts a whole other document in place, as one step that can be undone. */
  replace(label: string, shot: Shot): void;
  set(change: Partial<Omit<DeskState, keyof History>>): void;
  goToFrame(frame: number): void;
}

export type DeskStore = StoreApi<DeskState & DeskActions>;

/** The state of one open desk. The document is plain immutable data; undo is a list of documents. */
export function createDesk(shot: Shot): DeskStore {
  return createStore<DeskState & DeskActions>((set, get) => {
    /** Takes another document, and keeps of all else what it still has. */
    const put = (history: History | null) => {
      if (history === null) return;
      const state = get();
      set({
        ...history,
        ...keptSelection(state, history.shot),
        ...keptShown(state, history.shot),
        frame: frameWithin(history.shot, state.frame),
      });
    };
    return {
      ...newHistory(shot),
      ...newSelection(shot),
      ...newPlayback(shot),
      ...newShown(),
      ...newLoaded(),
      edit: (label, edit, gesture) => put(edited(get(), label, edit, gesture)),
      undo: () => put(undone(get())),
      redo: () => put(redone(get())),
      replace: (label, next) => get().edit(label, () => next),
      set(change) {
        // Keys and takes are those of one rider.
        const other = change.riderId !== undefined && change.riderId !== get().riderId;
        const line = change.line !== undefined && change.line !== get().line;
        set(
          other ? { keys: new Set(), take: null, ...change } : line ? { keys: new Set(), ...change } : change,
        );
      },
      goToFrame: (frame) => set({ frame: frameWithin(get().shot, frame) }),
    };
  });
}

export const DeskContext = createContext<DeskStore | null>(null);

/** The desk store without deferral, inside parts of the page that otherwise defer. */
export const LiveDeskContext = createContext<DeskStore | null>(null);

/** The open desk's store, for handlers that read the newest state. */
export const useDeskStore = (): DeskStore => useStoreOf(DeskContext);

/** The same, for what is moved by every frame without being drawn anew. */
export const useLiveDeskStore = (): DeskStore => useStoreOf(LiveDeskContext);

function useStoreOf(context: typeof DeskContext): DeskStore {
  const store = useContext(context);
  if (store === null) throw new Error('No desk is open here.');
  return store;
}

/** A part of the open desk's state. */
export function useDesk<T>(select: (state: DeskState & DeskActions) => T): T {
  return useStore(useDeskStore(), select);
}

/** The channel whose line the run diagram shows of the selected rider; null where that is how far it is. */
export const useShownChannel = () =>
  useDesk(({ shot, riderId, line }) =>
    shownChannel(
      shot.riders.find(({ id }) => id === riderId),
      line,
    ),
  );
export const useSelectedPath = () =>
  useDesk(({ shot, pathId }) => shot.paths.find((path) => path.id === pathId) ?? null);
export const useSelectedRider = () =>
  useDesk(({ shot, riderId }) => shot.riders.find((rider) => rider.id === riderId) ?? null);
