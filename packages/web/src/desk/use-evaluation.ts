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
    client.evaluate(desk.getState().shot);
    const stop = desk.subscribe(({ shot }, before) => {
      if (shot !== before.shot) client.evaluate(shot);
    });
    return () => {
      stop();
      client.close();
    };
  }, [desk]);
}
