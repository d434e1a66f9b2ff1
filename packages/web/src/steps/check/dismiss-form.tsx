import type { Finding } from '@fleet-rail/core';
import { useState, type FormEvent } from 'react';
import { showFindingAgain, dismissFinding } from '../../edits/check-edits';
import { PrimaryButton } from '../../ui/button';
import { CancelButton } from '../../ui/cancel-button';
import { TextField } from '../../ui/fields';
import { Buttons, Hint } from '../../ui/panel';
import { attempt } from '../../commands/attempt';
import { useDeskStore } from '../../state/desk-store';

/** Lets a finding be, with the reason why; or takes that back. */
export function DismissForm({ finding, onDone }: { finding: Finding; onDone: () => void }) {
  const desk = useDeskStore();
  const [reason, setReason] = useState('');
  if (finding.dismissed !== null)
    return (
      <Buttons>
        <PrimaryButton
          onPress={() => {
            if (attempt(desk, 'Show again', showFindingAgain(finding))) onDone();
          }}
        >
          Show again
        </PrimaryButton>
        <CancelButton onCancel={onDone} />
      </Buttons>
    );
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const why = reason.trim();
    if (why !== '' && attempt(desk, 'Dismiss a finding', dismissFinding(finding, why))) onDone();
  };
  return (
    <form onSubmit={submit}>
      <TextField autoFocus label="Reason" value={reason} onChange={setReason} maxLength={200} />
      <Hint>It returns if it gets worse.</Hint>
      <Buttons>
        <PrimaryButton type="submit" isDisabled={reason.trim() === ''}>
          Dismiss
        </PrimaryButton>
        <CancelButton onCancel={onDone} />
      </Buttons>
    </form>
  );
}
