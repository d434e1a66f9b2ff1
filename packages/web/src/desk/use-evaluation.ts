import { useEffect } from 'react';
import { sentenceOf } from '../api/request';
import { EvaluationClient } from '../evaluation/evaluation-client';
import { notify } from '../ui/notices';
import type { DeskStore } from './desk-store';

/** Keeps the desk's evaluation up with its document. */
export function useEvaluation(desk: DeskStore): void {
  useEffect(() => {
    const client = new EvaluationClient(
      (evaluation) => desk.getState().set({ evaluation }),
      (error) => notify('error', `The shot could not be evaluated: ${sentenceOf(error)}`),
    );
    const { ground, hierarchies, shot } = desk.getState();
    client.setAssets(ground, hierarchies);
    client.evaluate(shot);
    const stop = desk.subscribe(({ shot, ground, hierarchies }, before) => {
      const dressed = ground !== before.ground || hierarchies !== before.hierarchies;
      if (dressed) client.setAssets(ground, hierarchies);
      if (dressed || shot !== before.shot) client.evaluate(shot);
    });
    return () => {
      stop();
      client.close();
    };
  }, [desk]);
}
