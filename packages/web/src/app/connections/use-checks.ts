import { useEffect, useState } from 'react';
import { sentenceOf } from '../../api/request';
import { CheckClient } from '../../workers/checks/check-client';
import { notify } from '../../ui/notices';
import type { DeskStore } from '../../state/desk-store';

/** Checks the desk's shot after each edit, once it is evaluated: the stage comes first. */
export function useChecks(desk: DeskStore): CheckClient | null {
  const [opened, setOpened] = useState<CheckClient | null>(null);
  useEffect(() => {
    const client = new CheckClient(
      (checked) => desk.getState().set({ checked }),
      (error) => notify('error', `The shot could not be checked: ${sentenceOf(error)}`),
    );
    setOpened(client);
    let sent: unknown[] = [];
    const stop = desk.subscribe(({ shot, evaluation, ground, checkModels, riderId }) => {
      // Until the models of the check are read there are no findings.
      if (checkModels === null || evaluation === null || evaluation.now !== null) return;
      if (ground !== sent[1] || checkModels !== sent[2]) client.setAssets({ ground, ...checkModels });
      const wanted = [shot, ground, checkModels];
      if (wanted.every((part, i) => part === sent[i])) return;
      sent = wanted;
      client.check(shot, riderId);
    });
    return () => {
      stop();
      client.close();
      setOpened(null);
    };
  }, [desk]);
  return opened;
}
