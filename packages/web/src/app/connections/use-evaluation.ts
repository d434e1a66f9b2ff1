import { useEffect } from 'react';
import { sentenceOf } from '../../api/request';
import { EvaluationClient } from '../../workers/evaluation/evaluation-client';
import { notify } from '../../ui/notices';
import { wantedAside, type WantedAside } from '../../commands/aside';
import type { DeskStore } from '../../state/desk-store';

/** Keeps the desk's evaluation up with its document, and with what is shown beside it; works its edits out. */
export function useEvaluation(desk: DeskStore): void {
  useEffect(() => {
    const fail = (error: unknown) => notify('error', `The shot could not be evaluated: ${sentenceOf(error)}`);
    const client = new EvaluationClient((evaluation) => desk.getState().set({ evaluation }), fail);
    desk.getState().set({ editAsker: client });
    const focus = () => {
      const { frame, riderId } = desk.getState();
      return { frame, rider: riderId };
    };
    let shown: WantedAside | null = null;
    const showAside = (again: boolean) => {
      const wanted = wantedAside(desk.getState());
      if (wanted === shown && !(again && wanted)) return;
      shown = wanted;
      if (wanted === null) desk.getState().set({ aside: null });
      else
        client.evaluateAside(wanted.shot, wanted.riders).then((aside) => {
          if (aside && shown === wanted) desk.getState().set({ aside });
        }, fail);
    };
    const { ground, hierarchies, shot } = desk.getState();
    client.setAssets(ground, hierarchies);
    client.evaluate(shot, focus());
    showAside(false);
    const stop = desk.subscribe((state, before) => {
      const { shot, ground, hierarchies } = state;
      const dressed = ground !== before.ground || hierarchies !== before.hierarchies;
      if (dressed) client.setAssets(ground, hierarchies);
      if (dressed || shot !== before.shot) client.evaluate(shot, focus());
      showAside(dressed);
    });
    return () => {
      stop();
      client.close();
      desk.getState().set({ editAsker: null });
    };
  }, [desk]);
}
