import { createContext, useContext } from 'react';
import { useStore } from 'zustand';
import type { Autosave, SaveState } from './autosave';

export const SaveContext = createContext<Autosave | null>(null);

export function useAutosave(): Autosave {
  const autosave = useContext(SaveContext);
  if (autosave === null) throw new Error('No desk is open here.');
  return autosave;
}

export function useSaveState(): SaveState {
  return useStore(useAutosave().state);
}
