import type { Finding, Rider } from '@fleet-rail/core';
import { useState } from 'react';
import styled from 'styled-components';
import { Badge } from '../../ui/badge';
import { Button } from '../../ui/button';
import { Buttons } from '../../ui/panel';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { KIND_NAMES } from '../../ui/words/finding-words';
import { DismissForm } from './dismiss-form';
import { SeverityRing } from '../../ui/severity-ring';
import { Fixes } from './fixes';

const Tag = styled.li<{ $chosen: boolean }>`
  display: flex;
  flex-direction: column;
  gap: 6px;
  padding: 10px 16px;
  border-bottom: 1px solid ${({ theme }) => theme.hairline};
  background: ${({ theme, $chosen }) => ($chosen ? theme.wash : 'transparent')};
  list-style: none;
  overflow-wrap: anywhere;
  & > q {
    color: ${({ theme }) => theme.quiet};
    quotes: none;
  }
`;

const Head = styled.header`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 6px;
  & > svg {
    flex: none;
  }
  & > b {
    font: 600 13px/1.3 ${LABEL_FONT};
  }
`;

/** A kilometre post: the distance on it. */
const Post = styled.span`
  margin-left: auto;
  padding: 1px 5px;
  border: 1px solid ${({ theme }) => theme.quiet};
  border-radius: 2px 2px 0 0;
  border-bottom-width: 3px;
  font: 500 11px/14px ${LABEL_FONT};
  font-variant-numeric: tabular-nums;
  white-space: nowrap;
`;

const Frame = styled.span`
  color: ${({ theme }) => theme.quiet};
  font: 500 11px/16px ${LABEL_FONT};
  font-variant-numeric: tabular-nums;
  white-space: nowrap;
`;

/** One finding: how bad, whose, where, what, and what can be done about it. */
export function FindingTag(props: {
  finding: Finding;
  riders: ReadonlyMap<string, Rider>;
  isChosen: boolean;
  onShow: () => void;
  onCured: () => void;
}) {
  const { finding, riders, isChosen, onShow, onCured } = props;
  const [open, setOpen] = useState<'ways' | 'let-be' | null>(null);
  const { kind, severity, distance, frame, message, fix, dismissed } = finding;
  const badges = [finding.rider, finding.other].flatMap((id) => riders.get(id ?? '') ?? []);
  const name = `${KIND_NAMES[kind]}${badges.map(({ badge }) => ` ${badge}`).join('')}`;
  return (
    <Tag aria-label={name} aria-current={isChosen || undefined} $chosen={isChosen}>
      <Head>
        <SeverityRing severity={severity} />
        {badges.map((rider) => (
          <Badge key={rider.id} $color={rider.color}>
            {rider.badge}
          </Badge>
        ))}
        <b>{KIND_NAMES[kind]}</b>
        {distance !== null && <Post title="Distance along the path">{distance.toFixed(1)} m</Post>}
        {frame !== null && <Frame title="Frame">f {frame}</Frame>}
      </Head>
      <span>{message}</span>
      {dismissed !== null && <q>Dismissed: {dismissed}</q>}
      <Buttons>
        {badges.length > 0 && <Button onPress={onShow}>Show me</Button>}
        {fix !== null && dismissed === null && (
          <Button aria-expanded={open === 'ways'} onPress={() => setOpen(open === 'ways' ? null : 'ways')}>
            Fixes
          </Button>
        )}
        <Button
          aria-expanded={open === 'let-be'}
          onPress={() => setOpen(open === 'let-be' ? null : 'let-be')}
        >
          {dismissed === null ? 'Dismiss…' : 'Show again…'}
        </Button>
      </Buttons>
      {open === 'ways' && (
        <Fixes
          finding={finding}
          onCancel={() => setOpen(null)}
          onDone={() => {
            setOpen(null);
            onCured();
          }}
        />
      )}
      {open === 'let-be' && <DismissForm finding={finding} onDone={() => setOpen(null)} />}
    </Tag>
  );
}
