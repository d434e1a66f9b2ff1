import {
  SEAM_UNITS,
  closingsOf,
  evaluateShot,
  isOpen,
  seamReport,
  type Closing,
  type EvaluatedShot,
  type Rider,
  type SeamGap,
  type Shot,
} from '@fleet-rail/core';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { Badge } from '../../ui/badge';
import { Button, PrimaryButton } from '../../ui/button';
import { Fold } from '../../ui/fold';
import { Buttons, Hint } from '../../ui/panel';
import { Tick } from '../../ui/tick';
import { useDesk } from '../desk-store';
import { RelayCard } from './relay-card';

const NAMES: Readonly<Record<SeamGap['channel'], string>> = {
  place: 'Place',
  heading: 'Heading',
  bank: 'Bank',
  speed: 'Speed',
  wheel: 'Wheel',
  gait: 'Step',
  cycle: 'Cycle',
  part: 'Part',
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
  const seam = useDesk((state) => state.seam);
  const set = useDesk((state) => state.set);
  const edit = useDesk((state) => state.edit);
  const [offered, setOffered] = useState<{ shot: Shot; gap: SeamGap } | null>(null);
  const { evaluated, gaps } = useSeam(shot);
  if (evaluated === null) return null;
  const bad = gaps.filter(isOpen);
  const riderOf = (id: string) => shot.riders.find((rider) => rider.id === id);
  const closings = offered?.shot === shot ? closingsOf(evaluated, offered.gap) : [];
  const take = (closing: Closing) => {
    edit(closing.label, () => closing.shot);
    setOffered(null);
  };
  return (
    <>
      <Hint role="status">
        {bad.length === 0
          ? `Nothing to be seen at the seam: ${gaps.length} channels meet.`
          : `${bad.length} of ${gaps.length} channels do not meet: frame ${shot.range.last + 1} against frame ${shot.range.first}.`}
      </Hint>
      {bad.length > 0 && (
        <Table aria-label="Gaps at the seam">
          <thead>
            <tr>
              <th>Rider</th>
              <th>What</th>
              <th>Gap</th>
              <th>A second</th>
              <th aria-label="Fix" />
            </tr>
          </thead>
          <tbody>
            {bad.slice(0, 60).map((gap) => {
              const rider = riderOf(gap.rider);
              const fixable = closingsOf(evaluated, gap).length > 0;
              return (
                <tr key={`${gap.rider} ${gap.channel} ${gap.part}`}>
                  <td>{rider && <Badge $color={rider.color}>{rider.badge}</Badge>}</td>
                  <td>
                    {NAMES[gap.channel]} {gap.part}
                  </td>
                  <td>
                    {figure(gap.gap)} {SEAM_UNITS[gap.channel]}
                  </td>
                  <td>{gap.rate === null ? '' : figure(gap.rate)}</td>
                  <td>
                    {fixable && (
                      <Button
                        aria-label={`Close ${NAMES[gap.channel]} of ${rider?.badge}`}
                        onPress={() => setOffered({ shot, gap })}
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
      {closings.map((closing, i) => (
        <Offer key={closing.label} role="group" aria-label={closing.label}>
          <p>
            <b>{closing.label}</b>: {closing.detail}.
          </p>
          <Buttons>
            {i === 0 ? (
              <PrimaryButton onPress={() => take(closing)}>Take this, the least change</PrimaryButton>
            ) : (
              <Button onPress={() => take(closing)}>Take this</Button>
            )}
          </Buttons>
        </Offer>
      ))}
      <Buttons>
        <Button onPress={() => set({ seam: !seam })}>
          {seam ? 'Back to the stage' : 'Look at the seam'}
        </Button>
      </Buttons>
    </>
  );
}

function figure(value: number): string {
  return value < 0.0005 ? '0' : value < 10 ? value.toFixed(3) : value.toFixed(1);
}

function useSeam(shot: Shot): { evaluated: EvaluatedShot | null; gaps: SeamGap[] } {
  return useMemo(() => {
    const evaluated = evaluateShot(shot);
    return { evaluated, gaps: seamReport(evaluated) };
  }, [shot]);
}
