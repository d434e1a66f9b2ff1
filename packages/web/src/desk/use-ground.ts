import { useEffect } from 'react';
import { sentenceOf } from '../api/request';
import { loadGround } from '../ground/load-ground';
import { notify } from '../ui/notices';
import { useDesk } from './desk-store';

/** Keeps the triangles of the shot's ground at hand. */
export function useGround(): void {
  const model = useDesk(({ shot }) => shot.models.find(({ id }) => id === shot.ground.model) ?? null);
  const nodes = useDesk(({ shot }) => shot.ground.nodes);
  const shot = useDesk((state) => state.shot);
  const set = useDesk((state) => state.set);
  useEffect(() => {
    let gone = false;
    loadGround(shot).then(
      (ground) => !gone && set({ ground }),
      (error: unknown) => notify('error', `The ground could not be read: ${sentenceOf(error)}`),
    );
    return () => {
      gone = true;
    };
    // Of the shot only its ground and that ground's model count.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [model, nodes, set]);
}
