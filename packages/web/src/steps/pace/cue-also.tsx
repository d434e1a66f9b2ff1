import { CueAction, defaultsOf, hasOwnPace, type Cue, type Rider } from '@fleet-rail/core';
import { Plus, Trash2 } from 'lucide-react';
import { Button } from '../../ui/button';
import { IconButton } from '../../ui/icon-button';
import { Buttons, FieldPair } from '../../ui/panel';
import { Select } from '../../ui/select';
import { Tick } from '../../ui/tick';

const STARTS = 'Starts';

/** Further actions of a cue: other parts, mirrored if they are the other one of a pair; and riders that start. */
export function AlsoDoes(props: {
  cue: Cue;
  parts: readonly { id: string; name: string }[];
  riders: readonly Rider[];
  onChange: (also: CueAction[]) => void;
}) {
  const { cue, parts, riders, onChange } = props;
  const { action, moreActions } = cue;
  const moves = action.kind === 'turn' || action.kind === 'move';
  const free = moves
    ? parts.filter(({ id }) => id !== action.node && !moreActions.some(({ node }) => node === id))
    : [];
  const started = new Set(
    [action, ...moreActions].filter(({ kind }) => kind === 'start').map(({ rider }) => rider),
  );
  // Only a rider with its own pace can be started.
  const waiting = riders.filter(
    ({ id, attachment }) =>
      attachment !== null && hasOwnPace(attachment) && id !== cue.trigger.rider && !started.has(id),
  );
  const badge = (id: string) => riders.find((rider) => rider.id === id)?.badge ?? '';
  const put = (i: number, part: Partial<CueAction>) =>
    onChange(moreActions.map((action, n) => (n === i ? { ...action, ...part } : action)));
  return (
    <>
      {moreActions.map((action, i) => (
        <FieldPair key={i} role="group" aria-label={`${cue.name}, also ${i + 1}`}>
          {action.kind === 'start' ? (
            <Select
              label={STARTS}
              options={[action.rider, ...waiting.map(({ id }) => id)].map((id) => ({ id, name: badge(id) }))}
              value={action.rider}
              onChange={(rider) => put(i, { rider })}
            />
          ) : (
            <>
              <Select
                label="And part"
                options={parts}
                value={action.node ?? ''}
                onChange={(node) => put(i, { node })}
              />
              <Tick isSelected={action.times < 0} onChange={(on) => put(i, { times: on ? -1 : 1 })}>
                Mirrored
              </Tick>
            </>
          )}
          <IconButton
            label={`Delete ${action.node ?? badge(action.rider)}`}
            onPress={() => onChange(moreActions.filter((_, n) => n !== i))}
          >
            <Trash2 aria-hidden />
          </IconButton>
        </FieldPair>
      ))}
      <Buttons>
        {moves && free.length > 0 && (
          <Button onPress={() => onChange([...moreActions, { ...action, node: free[0].id, times: -1 }])}>
            <Plus aria-hidden /> Another part
          </Button>
        )}
        {waiting.length > 0 && (
          <Button
            onPress={() =>
              onChange([...moreActions, { ...defaultsOf(CueAction), kind: 'start', rider: waiting[0].id }])
            }
          >
            <Plus aria-hidden /> {badge(waiting[0].id)} sets off too
          </Button>
        )}
      </Buttons>
    </>
  );
}
