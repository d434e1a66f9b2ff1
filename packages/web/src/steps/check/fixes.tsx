import type { Finding, Shot } from '@fleet-rail/core';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { sentenceOf } from '../../api/request';
import type { OfferedFix } from '../../workers/checks/check-client';
import { notify } from '../../ui/notices';
import { PrimaryButton } from '../../ui/button';
import { CancelButton } from '../../ui/cancel-button';
import { Choice } from '../../ui/choice';
import { Buttons, Hint } from '../../ui/panel';
import { attempt } from '../../commands/attempt';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { useCheckClient } from '../../state/check-context';

const Way = styled.div`
  display: flex;
  flex-direction: column;
  gap: 6px;
  padding: 8px 10px;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-left: 4px solid ${({ theme }) => theme.settled};
  border-radius: 6px;
  background: ${({ theme }) => theme.panel};
`;

/** Fixes of a finding: the selected one is previewed on the stage, and applied on acceptance. */
export function Fixes(props: { finding: Finding; onDone: () => void; onCancel: () => void }) {
  const { finding, onDone, onCancel } = props;
  const desk = useDeskStore();
  const client = useCheckClient();
  const set = useDesk((state) => state.set);
  const checked = useDesk((state) => state.checked?.shot ?? null);
  const shot = useDesk((state) => state.shot);
  const [ways, setWays] = useState<{ shot: Shot; offered: readonly OfferedFix[] } | null>(null);
  const [chosen, setChosen] = useState(0);
  useEffect(() => {
    let current = true;
    if (client === null || checked === null) return;
    client.fixes(finding, checked).then(
      (offered) => current && setWays({ shot: checked, offered }),
      (error: unknown) => {
        if (!current) return;
        notify('error', sentenceOf(error));
        setWays({ shot: checked, offered: [] });
      },
    );
    return () => {
      current = false;
    };
  }, [client, checked, finding]);
  const way = ways?.offered[chosen] ?? null;
  useEffect(() => {
    set({ shownBefore: way && { shot: way.shot, riders: changedRiders(desk.getState().shot, way.shot) } });
    return () => set({ shownBefore: null });
  }, [way, set, desk]);
  if (ways === null) return <Hint role="status">Finding fixes…</Hint>;
  if (way === null) return <Hint role="status">No automatic fix; change the path or the pace by hand.</Hint>;
  return (
    <Way role="group" aria-label="Fixes">
      {ways.offered.length > 1 && (
        <Choice
          label="Fix"
          options={ways.offered.map(({ label }, i) => ({ id: String(i), name: label }))}
          value={String(chosen)}
          onChange={(id) => setChosen(Number(id))}
        />
      )}
      <span>
        <b>{way.label}</b>: {way.detail}.
      </span>
      <Buttons>
        <PrimaryButton
          // A fix for a shot is not applied to one that changed since: that is checked first.
          isDisabled={shot !== ways.shot}
          onPress={() => {
            set({ shownBefore: null });
            if (attempt(desk, way.label, () => way.shot)) onDone();
          }}
        >
          {way.label}
        </PrimaryButton>
        <CancelButton onCancel={onCancel} />
      </Buttons>
    </Way>
  );
}

/** Riders that would be somewhere else: those that are changed themselves, or whose path is. */
function changedRiders(before: Shot, after: Shot): string[] {
  const riders = new Set(before.riders);
  const paths = new Set(before.paths);
  const moved = new Set(after.paths.filter((path) => !paths.has(path)).map(({ id }) => id));
  return after.riders
    .filter((rider) => !riders.has(rider) || moved.has(rider.attachment?.path ?? ''))
    .map(({ id }) => id);
}
