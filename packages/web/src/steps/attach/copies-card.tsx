import { useEffect, useMemo, type ReactNode } from 'react';
import type { Shot } from '@fleet-rail/core';
import { sentenceOf } from '../../api/request';
import { PrimaryButton } from '../../ui/button';
import { CancelButton } from '../../ui/cancel-button';
import { Buttons, Hint } from '../../ui/panel';
import { attempt } from '../../commands/attempt';
import { useDesk, useDeskStore } from '../../state/desk-store';

/** Riders that would be added, or why they cannot be. */
type Arranged = { readonly shot: Shot; readonly ids: string[] } | { readonly problem: string };

function arranged(make: () => { shot: Shot; ids: string[] }): Arranged {
  try {
    return make();
  } catch (error) {
    return { problem: sentenceOf(error) };
  }
}

/** Shows riders that would come pale on the stage while they are set up, and takes them up when accepted; Esc ends it. */
export function CopiesCard(props: {
  label: string;
  action: string;
  make: (shot: Shot) => { shot: Shot; ids: string[] };
  children: ReactNode;
  onDone: () => void;
}) {
  const { label, action, make, children, onDone } = props;
  const desk = useDeskStore();
  const set = useDesk((state) => state.set);
  const shot = useDesk((state) => state.shot);
  const result = useMemo(() => arranged(() => make(shot)), [make, shot]);
  const shown = 'problem' in result ? null : result;
  useEffect(() => {
    set({ shownBefore: shown && { shot: shown.shot, riders: shown.ids } });
    return () => set({ shownBefore: null });
  }, [shown, set]);
  return (
    <>
      {children}
      {'problem' in result && <Hint role="alert">{result.problem}</Hint>}
      <Buttons>
        <PrimaryButton
          isDisabled={shown === null}
          onPress={() => {
            set({ shownBefore: null });
            if (attempt(desk, label, (before) => make(before).shot)) onDone();
          }}
        >
          {action}
        </PrimaryButton>
        <CancelButton onCancel={onDone} />
      </Buttons>
    </>
  );
}
