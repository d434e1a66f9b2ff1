import type { ShotPath } from '@fleet-rail/core';
import { memo } from 'react';
import styled from 'styled-components';
import { OPERATIONS, type OperationKind } from '../../workers/operations/operation';
import { Button } from '../../ui/button';
import { Section, SectionTitle } from '../../ui/panel';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { startOperation } from '../../commands/operate';

const Group = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  & > small {
    width: 100%;
    color: ${({ theme }) => theme.quiet};
  }
  & > button {
    height: 26px;
    padding: 0 8px;
  }
`;

const GROUPS: readonly (readonly [string, readonly OperationKind[]])[] = [
  ['Shape', ['smooth', 'corners', 'thin', 'resample', 'basis']],
  ['Position', ['move', 'lift', 'level', 'drape', 'mirror', 'offset', 'transform']],
  ['Direction', ['reverse', 'first', 'open', 'unlink', 'close', 'split', 'join']],
];

/** All that can be done to the path as a whole, each shown before it is accepted. */
export const OperationMenu = memo(function OperationMenu(props: Pick<ShotPath, 'id' | 'closed' | 'basis'>) {
  const { id, closed, basis } = props;
  const desk = useDeskStore();
  const others = useDesk(({ shot }) => shot.paths.some((other) => other.id !== id && !other.closed));
  const hasCurve = useDesk(({ evaluation }) => evaluation?.paths.get(id)?.problem === null);
  const fits = (kind: OperationKind): boolean => {
    if (kind === 'first' || kind === 'open' || kind === 'unlink') return closed;
    if (kind === 'corners') return basis === 'polyline';
    if (kind === 'close' || kind === 'split') return !closed;
    return kind === 'join' ? !closed && others : true;
  };
  return (
    <Section aria-label="Change the path">
      <SectionTitle>Change the path</SectionTitle>
      {GROUPS.map(([group, kinds]) => (
        <Group key={group} role="group" aria-label={group}>
          <small>{group}</small>
          {kinds.filter(fits).map((kind) => (
            <Button key={kind} isDisabled={!hasCurve} onPress={() => startOperation(desk, kind)}>
              {OPERATIONS[kind].name}
            </Button>
          ))}
        </Group>
      ))}
    </Section>
  );
});
