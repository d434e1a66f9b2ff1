import { NavLink } from 'react-router';
import styled from 'styled-components';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { lineColor } from '../../ui/theme/theme';
import { useDesk, useSelectedRider } from '../../state/desk-store';
import { STEPS, type StepId } from '../../state/steps';

const Line = styled.nav`
  position: relative;
  display: flex;
  flex-direction: column;
  align-items: center;
  padding-top: 14px;
  border-right: 1px solid ${({ theme }) => theme.hairline};
  background: ${({ theme }) => theme.panel};
`;

const Stop = styled(NavLink)<{ $line: string }>`
  position: relative;
  display: grid;
  justify-items: center;
  gap: 4px;
  width: 100%;
  padding: 8px 0 10px;
  color: ${({ theme }) => theme.quiet};
  font: 500 12px/1 ${LABEL_FONT};
  text-decoration: none;
  &::before {
    content: '';
    position: absolute;
    top: 0;
    bottom: 0;
    width: 4px;
    background: ${({ $line }) => $line};
  }
  &:first-child::before {
    top: 16px;
  }
  &:last-child::before {
    bottom: auto;
    height: 16px;
  }
  &.active {
    color: ${({ theme }) => theme.ink};
    font-weight: 600;
  }
  &.active > i {
    width: 22px;
    height: 22px;
    border-width: 5px;
    margin: -2px 0;
  }
  &:hover {
    color: ${({ theme }) => theme.ink};
  }
  &:focus-visible {
    outline-offset: -3px;
  }
  & > span {
    position: relative;
    padding: 1px 3px;
    background: ${({ theme }) => theme.panel};
  }
`;

const Ring = styled.i<{ $filled: boolean; $alert: boolean; $line: string }>`
  position: relative;
  width: 18px;
  height: 18px;
  border: 4px solid ${({ $line }) => $line};
  border-radius: 50%;
  background: ${({ theme, $filled, $alert, $line }) => ($alert ? theme.signal : $filled ? $line : theme.panel)};
`;

/** Number of findings, beside the ring. */
const Count = styled.b`
  position: absolute;
  top: 2px;
  right: 1px;
  min-width: 18px;
  padding: 0 3px;
  text-align: center;
  border-radius: 7px;
  background: ${({ theme }) => theme.signal};
  color: #ffffff;
  font: 600 11px/14px ${LABEL_FONT};
  font-variant-numeric: tabular-nums;
`;

/** The seven steps as stations: filled where the selected rider has it set, red where a check speaks up. */
export function StepLine({ shotId }: { shotId: string }) {
  const rider = useSelectedRider();
  const paths = useDesk((state) => state.shot.paths.length);
  // Notes are worth knowing, and no more: they do not call.
  const findings = useDesk(
    ({ checked }) =>
      checked?.findings.filter(({ severity, dismissed }) => severity !== 'note' && dismissed === null)
        .length ?? 0,
  );
  const color = rider ? lineColor(rider.color) : '#5B6B73';
  const set: Record<StepId, boolean> = {
    path: paths > 0,
    attach: rider?.attachment != null,
    facing: rider?.attachment != null,
    contact:
      (rider?.wheels.length ?? 0) > 0 || rider?.gait != null || rider?.attachment?.ground.mode === 'stick',
    pace: (rider?.attachment?.pace.keys.length ?? 0) > 1,
    check: false,
    'hand-over': false,
  };
  return (
    <Line aria-label="Steps">
      {STEPS.map(({ id, name }, i) => {
        const alert = id === 'check' && findings > 0;
        return (
          <Stop key={id} to={`/shots/${shotId}/${id}`} $line={color} title={`${name} (${i + 1})`}>
            <Ring $line={color} $filled={set[id]} $alert={alert} aria-hidden />
            <span>{name}</span>
            {alert && <Count aria-label={`${findings} found`}>{findings > 99 ? '99+' : findings}</Count>}
          </Stop>
        );
      })}
    </Line>
  );
}
