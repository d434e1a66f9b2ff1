import { useEffect } from 'react';
import { useModels } from '../../api/models';
import { useDesk } from '../../state/desk-store';

/** Keeps what was read from the server's models at hand for the desk. */
export function useModelFacts(): void {
  const { data } = useModels();
  const set = useDesk((state) => state.set);
  useEffect(() => {
    if (data) set({ models: data });
  }, [data, set]);
}
