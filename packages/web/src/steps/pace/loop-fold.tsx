import {
  SEAM_UNITS,
  canClose,
  isOpen,
  type Closing,
  type Rider,
  type SeamGap,
  type Shot,
} from '@fleet-rail/core';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { sentenceOf } from '../../api/request';
import { notify } from '../../ui/notices';
import { Badge } from '../../ui/badge';
import { Button, PrimaryButton } from '../../ui/button';
import { CancelButton } from '../../ui/cancel-button';
import { Fold } from '../../ui/fold';
import { Buttons, Hint } from '../../ui/panel';
import { Tick } from '../../ui/tick';
import { useDesk } from '../../state/desk-store';
import { useCheckClient } from '../../state/check-context';
import { RelayCard } from './relay-card';

const NAMES: Readonly<Record<SeamGap['channel'], string>> = {
  place: 'Distance',
  heading: 'Heading',
  bank: 'Bank',
  speed: 'Speed',
  wheel: 'Wheel',
  gait: 'Step',
  cycle: 'Cycle',
  part: 'Part',
  roll: 'Roll',
  swing: 'Swing',
  focal: 'Focal length',
};

const Table = styled.table`
  border-collapse: collapse;
  font-variant-numeric: tabular-nums;
  & th {
    text-align: left;
    font-weight: 500;
    color: ${({ theme }) => theme.quiet};
  }
  & td,
  & th {
    padding: 3px 6px 3px 0;
    border-bottom: 1px solid ${({ theme }) => theme.hairline};
    vertical-align: middle;
  }
  & td:last-child {
    padding-right: 0;
    text-align: right;
  }
`;

const Offer = styled.div`
  padding: 8px;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-left: 4px solid ${({ theme }) => theme.settled};
  border-radius: 6px;
  & > p {
    margin: 0 0 6px;
  }
`;

/** Looping: what does not meet at the seam, by how much, and how to close it. */
export function LoopFold({ rider }: { rider: Rider | null }) {
  const loop = useDesk(({ shot }) => shot.loop);
  const edit = useDesk((state) => state.edit);
  const [open, setOpen] = useState(false);
  return (
    <Fold title="Loop and seam" onOpen={setOpen}>
      <Tick
        isSelected={loop}
        onChange={(on) => edit(on ? 'Loop' : 'No loop', (shot) => ({ ...shot, loop: on }))}
      >
        The shot loops: after the last frame comes the first
      </Tick>
      {open && <Seam />}
      {open && <RelayCard rider={rider} />}
    </Fold>
  );
}

function Seam() {
  const shot = useDesk((state) => state.shot);
  // Until models were read it is not known which wheels look the same after a part of a turn.
  const isSettled = useDesk(
    ({ evaluation, checkModels }) => evaluation?.now === null && checkModels !== null,
  );
  const checkModels = useDesk((state) => state.checkModels);
  const client = useCheckClient();
  const seam = useDesk((state) => state.seam);
  const set = useDesk((state) => state.set);
  const edit = useDesk((state) => state.edit);
  const [gaps, setGaps] = useState<readonly SeamGap[] | null>(null);
  const [offered, setOffered] = useState<{ shot: Shot; gap: SeamGap; closings: Closing[] } | null>(null);
  useEffect(() => {
    if (!isSettled) return undefined;
    let current = true;
    client?.seam(shot).then(
      (found) => current && setGaps(found),
      (error: unknown) => notify('error', sentenceOf(error)),
    );
    return () => {
      current = false;
    };
  }, [client, shot, isSettled, checkModels]);
  const gap = offered?.shot === shot ? offered.gap : null;
  const closings = offered?.shot === shot ? offered.closings : [];
  // A closing of a drive can take a while: it is computed when it is asked for.
  const offer = (wanted: SeamGap) =>
    client?.closings(wanted, shot).then(
      (found) => setOffered({ shot, gap: wanted, closings: found }),
      (error: unknown) => notify('error', sentenceOf(error)),
    );
  if (gaps === null) return null;
  const bad = gaps.filter(isOpen);
  const riderOf = (id: string) => shot.riders.find((rider) => rider.id === id);
  const take = ({ label, shot: closed }: Closing) => {
    // A closing for a shot is not applied to one that changed since.
    edit(label, (now) => (now === offered?.shot ? closed : now));
    setOffered(null);
  };
  return (
    <>
      <Hint role="status">
        {bad.length === 0
          ? `The loop closes: all ${gaps.length} channels match.`
          : `${bad.length} of ${gaps.length} channels do not meet: frame ${shot.range.last + 1} against frame ${shot.range.first}.`}
      </Hint>
      {bad.length > 0 && (
        <Table aria-label="Gaps at the seam">
          <thead>
            <tr>
              <th>Rider</th>
              <th>What</th>
              <th>Gap</th>
              <th>Change per second</th>
              <th aria-label="Fix" />
            </tr>
          </thead>
          <tbody>
            {bad.slice(0, 60).map((one) => {
              const rider = riderOf(one.rider);
              return (
                <tr key={`${one.rider} ${one.channel} ${one.part}`}>
                  <td>{rider && <Badge $color={rider.color}>{rider.badge}</Badge>}</td>
                  <td>
                    {NAMES[one.channel]} {one.part}
                  </td>
                  <td>
                    {figure(one.gap)} {SEAM_UNITS[one.channel]}
                  </td>
                  <td>{one.rate === null ? '' : figure(one.rate)}</td>
                  <td>
                    {canClose(shot, one) && (
                      <Button
                        aria-label={`Close ${NAMES[one.channel]} of ${rider?.badge}`}
                        onPress={() => void offer(one)}
                      >
                        Close…
                      </Button>
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </Table>
      )}
      {gap && closings.length === 0 && <Hint role="status">No automatic fix; change the pace by hand.</Hint>}
      {closings.map((closing, i) => (
        <Offer key={closing.label} role="group" aria-label={closing.label}>
          <p>
            <b>{closing.label}</b>: {closing.detail}.
          </p>
          <Buttons>
            {i === 0 ? (
              <PrimaryButton onPress={() => take(closing)}>Apply the smallest change</PrimaryButton>
            ) : (
              <Button onPress={() => take(closing)}>Apply this</Button>
            )}
          </Buttons>
        </Offer>
      ))}
      <Buttons>
        {gap && <CancelButton onCancel={() => setOffered(null)} />}
        <Button onPress={() => set({ seam: !seam })}>{seam ? 'Back to the stage' : 'Show the seam'}</Button>
      </Buttons>
    </>
  );
}

function figure(value: number): string {
  return value < 0.0005 ? '0' : value < 10 ? value.toFixed(3) : value.toFixed(1);
}
