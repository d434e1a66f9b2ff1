import type { Cue, CueAction } from '@fleet-rail/core';
import { Plus, Trash2 } from 'lucide-react';
import { Button } from '../../ui/button';
import { IconButton } from '../../ui/icon-button';
import { Buttons, FieldPair } from '../../ui/panel';
import { Select } from '../../ui/select';
import { Tick } from '../../ui/tick';

/** Other parts that do the same at the same time, the other way round where they are the other one of a pair. */
export function AlsoDoes(props: {
  cue: Cue;
  parts: readonly { id: string; name: string }[];
  onChange: (also: CueAction[]) => void;
}) {
  const { cue, parts, onChange } = props;
  const { does, also } = cue;
  const free = parts.filter(({ id }) => id !== does.node && !also.some(({ node }) => node === id));
  const put = (i: number, part: Partial<CueAction>) =>
    onChange(also.map((action, n) => (n === i ? { ...action, ...part } : action)));
  return (
    <>
      {also.map((action, i) => (
        <FieldPair key={i} role="group" aria-label={`${cue.name}, also ${i + 1}`}>
          <Select
            label="And part"
            options={parts}
            value={action.node ?? ''}
            onChange={(node) => put(i, { node })}
          />
          <Tick isSelected={action.times < 0} onChange={(on) => put(i, { times: on ? -1 : 1 })}>
            Mirrored
          </Tick>
          <IconButton
            label={`Delete ${action.node ?? ''}`}
            onPress={() => onChange(also.filter((_, n) => n !== i))}
          >
            <Trash2 aria-hidden />
          </IconButton>
        </FieldPair>
      ))}
      {free.length > 0 && (
        <Buttons>
          <Button onPress={() => onChange([...also, { ...does, node: free[0].id, times: -1 }])}>
            <Plus aria-hidden /> Another part
          </Button>
        </Buttons>
      )}
    </>
  );
}
