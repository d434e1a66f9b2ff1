import type { ShotPath } from '@fleet-rail/core';
import styled from 'styled-components';
import { OPERATIONS, type Operation } from '../../workers/operations/operation';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { Button, PrimaryButton } from '../../ui/button';
import { Buttons, Hint, Section, SectionTitle } from '../../ui/panel';
import { showNumber } from '../../ui/quantity';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { OperationSettings } from './operation-settings';
import { acceptOperation, cancelOperation } from '../../commands/operate';

const Figures = styled.dl`
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 2px 12px;
  margin: 0;
  padding: 8px 10px;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 6px;
  font-family: ${LABEL_FONT};
  font-size: 14px;
  & dt {
    color: ${({ theme }) => theme.quiet};
  }
  & dd {
    margin: 0;
    text-align: right;
  }
`;

/** An operation being set up: its settings, what it would give, and the two ways to leave it. */
export function OperationCard({ operation, path }: { operation: Operation; path: ShotPath }) {
  const desk = useDeskStore();
  const preview = useDesk((state) => state.preview);
  const current = preview?.operation === operation ? preview : null;
  const { name, does } = OPERATIONS[operation.kind];
  return (
    <Section aria-label={name}>
      <SectionTitle>{name}</SectionTitle>
      <Hint>{does}</Hint>
      <OperationSettings operation={operation} path={path} />
      <PreviewFigures />
      <Buttons>
        <PrimaryButton isDisabled={!(current && 'preview' in current)} onPress={() => acceptOperation(desk)}>
          Accept (Enter)
        </PrimaryButton>
        <Button onPress={() => cancelOperation(desk)}>Cancel (Esc)</Button>
      </Buttons>
    </Section>
  );
}

function PreviewFigures() {
  const preview = useDesk((state) => state.preview);
  if (preview === null) return <Hint role="status">Computing…</Hint>;
  if ('problem' in preview) return <Hint role="alert">{preview.problem}</Hint>;
  const { pointsBefore, pointsAfter, length, deviation, bridge, roughness } = preview.preview;
  return (
    <Figures aria-label="Result">
      <dt>Points</dt>
      <dd>
        {pointsBefore} → {pointsAfter}
      </dd>
      <dt>Length</dt>
      <dd>{showNumber(length, 3)} m</dd>
      {roughness !== null && (
        <>
          <dt>Roughest bend turns</dt>
          <dd>
            {showNumber(roughness[0], 1)}° → {showNumber(roughness[1], 1)}°
          </dd>
        </>
      )}
      {bridge !== null && (
        <>
          <dt>Tightest bend of the bridge</dt>
          <dd>{showNumber(bridge, 2)} m radius</dd>
        </>
      )}
      {deviation !== null && (
        <>
          <dt>Largest deviation</dt>
          <dd>{deviationText(deviation)}</dd>
        </>
      )}
    </Figures>
  );
}

function deviationText(metres: number): string {
  if (metres < 1e-6) return 'the same curve';
  return metres < 0.1
    ? `${showNumber(metres * 1000, metres < 0.01 ? 2 : 1)} mm`
    : `${showNumber(metres, 3)} m`;
}
