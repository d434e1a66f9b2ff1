import styled from 'styled-components';
import { Hint, PanelTitle, Section } from '../../ui/panel';
import { useDesk } from '../desk-store';
import { whereOf } from '../where';

const Finding = styled.li<{ $error: boolean }>`
  padding: 8px 0 8px 10px;
  border-left: 4px solid ${({ theme, $error }) => ($error ? theme.signal : theme.attention)};
  list-style: none;
  & > small {
    display: block;
    color: ${({ theme }) => theme.quiet};
    font-size: 12px;
    overflow-wrap: anywhere;
  }
`;

const List = styled.ul`
  display: flex;
  flex-direction: column;
  gap: 8px;
  margin: 0;
  padding: 0;
`;

/** What the checks have to say, errors first. */
export function CheckStation() {
  const findings = useDesk((state) => state.evaluation?.findings ?? null);
  const shot = useDesk((state) => state.shot);
  return (
    <>
      <PanelTitle>Check</PanelTitle>
      <Section>
        {findings === null && <Hint>Checking…</Hint>}
        {findings?.length === 0 && <Hint>No problems found.</Hint>}
        <List aria-label="Findings">
          {findings?.map(({ severity, at, message }, i) => (
            <Finding key={i} $error={severity === 'error'}>
              {severity === 'error' ? 'Error: ' : ''}
              {message}
              <small>{whereOf(shot, at)}</small>
            </Finding>
          ))}
        </List>
      </Section>
    </>
  );
}
