import { reportCsv, reportJson, reportText, summaryOf, type Finding, type Severity } from '@fleet-rail/core';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { Button } from '../../ui/button';
import { Buttons, FieldPair, Hint, PanelTitle, Section } from '../../ui/panel';
import { Select } from '../../ui/select';
import { Tick } from '../../ui/tick';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { saveText } from '../../api/download';
import { FindingTag } from './finding-tag';
import { KIND_NAMES, SEVERITY_NAMES } from '../../ui/words/finding-words';
import { LimitsFold } from './limits-fold';

const List = styled.ul`
  margin: 0;
  padding: 0;
`;

const Cured = styled.li`
  padding: 6px 16px;
  border-bottom: 1px solid ${({ theme }) => theme.hairline};
  color: ${({ theme }) => theme.settled};
  list-style: none;
  overflow: hidden;
  animation: fold-away 600ms 4s ease-in forwards;
  @keyframes fold-away {
    to {
      max-height: 0;
      padding-block: 0;
      border-width: 0;
      opacity: 0;
    }
  }
`;

/** Most findings listed; filters reach the rest. */
const MOST_LISTED = 200;
const SEVERITIES: readonly Severity[] = ['fault', 'warning', 'note'];

/** Findings, worst first: each can be shown, fixed, or dismissed. */
export function CheckStep() {
  const desk = useDeskStore();
  const checked = useDesk((state) => state.checked);
  const riders = useDesk((state) => state.shot.riders);
  const [rider, setRider] = useState('');
  const [kind, setKind] = useState('');
  const [hidden, setHidden] = useState<ReadonlySet<Severity>>(new Set());
  const [chosen, setChosen] = useState<string | null>(null);
  const [cured, setCured] = useState<readonly string[]>([]);
  const byId = useMemo(() => new Map(riders.map((one) => [one.id, one])), [riders]);
  const findings = checked?.findings ?? [];
  const listed = findings.filter(
    (one) =>
      (rider === '' || one.rider === rider || one.other === rider) &&
      (kind === '' || one.kind === kind) &&
      !hidden.has(one.severity),
  );
  const kinds = [...new Set(findings.map((one) => one.kind))];
  const found = new Set(findings.flatMap((one) => [one.rider, one.other]));
  const show = (finding: Finding) => {
    setChosen(keyOf(finding));
    const ids = [finding.rider, finding.other].flatMap((id) => (id !== null && byId.has(id) ? [id] : []));
    const path = byId.get(ids[0])?.attachment?.path;
    desk.getState().set({
      playing: false,
      view: 'free',
      riderId: ids[0] ?? null,
      ...(path === undefined ? {} : { pathId: path }),
    });
    if (finding.frame !== null) desk.getState().goToFrame(finding.frame);
    desk.getState().set({ lookAt: { riders: ids } });
  };
  const save = (type: 'txt' | 'csv' | 'json') => {
    const { shot } = desk.getState();
    const text = {
      txt: () => `${reportText(findings, shot)}\n`,
      csv: () => reportCsv(findings, shot),
      json: () => `${reportJson(findings)}\n`,
    }[type]();
    saveText(`${shot.name} check.${type}`, text);
  };
  return (
    <>
      <PanelTitle>Check</PanelTitle>
      <Section>
        <Hint role="status">
          {checked === null
            ? 'Checking…'
            : `${capital(summaryOf(findings, riders.length))} (checked in ${checked.seconds.toFixed(1)} s).`}
        </Hint>
        {findings.length > 1 && (
          <>
            <FieldPair>
              <Select
                label="Rider"
                options={[
                  { id: '', name: 'All riders' },
                  ...riders
                    .filter(({ id }) => found.has(id))
                    .map(({ id, badge, name }) => ({ id, name: `${badge} ${name}` })),
                ]}
                value={rider}
                onChange={setRider}
              />
              <Select
                label="Kind"
                options={[
                  { id: '', name: 'All kinds' },
                  ...kinds.map((id) => ({ id: id as string, name: KIND_NAMES[id] })),
                ]}
                value={kind}
                onChange={setKind}
              />
            </FieldPair>
            <Buttons>
              {SEVERITIES.map((severity) => (
                <Tick
                  key={severity}
                  isSelected={!hidden.has(severity)}
                  onChange={(on) => setHidden(toggled(hidden, severity, !on))}
                >
                  {SEVERITY_NAMES[severity].many}
                </Tick>
              ))}
            </Buttons>
          </>
        )}
      </Section>
      <List aria-label="Findings">
        {listed.slice(0, MOST_LISTED).map((finding) => (
          <FindingTag
            key={keyOf(finding)}
            finding={finding}
            riders={byId}
            isChosen={chosen === keyOf(finding)}
            onShow={() => show(finding)}
            onCured={() => setCured([finding.message, ...cured].slice(0, 3))}
          />
        ))}
      </List>
      {listed.length > MOST_LISTED && (
        <Section>
          <Hint>And {listed.length - MOST_LISTED} more; choose a rider or a kind.</Hint>
        </Section>
      )}
      {cured.length > 0 && (
        <List aria-label="Fixed">
          {cured.map((message) => (
            <Cured key={message}>
              <s>{message}</s>
            </Cured>
          ))}
        </List>
      )}
      <LimitsFold />
      <Section aria-label="Report">
        <Buttons>
          <Button onPress={() => save('txt')}>Report as text</Button>
          <Button onPress={() => save('csv')}>CSV</Button>
          <Button onPress={() => save('json')}>JSON</Button>
        </Buttons>
      </Section>
    </>
  );
}

/** Told apart from look to look by what it is about, and when. */
const keyOf = ({ kind, rider, other, path, part, from }: Finding) =>
  [kind, rider, other, path, part, from].join(' ');

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

function toggled<T>(set: ReadonlySet<T>, item: T, has: boolean): ReadonlySet<T> {
  const next = new Set(set);
  if (has) next.add(item);
  else next.delete(item);
  return next;
}
