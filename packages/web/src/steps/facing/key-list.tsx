import {
  channelLimits,
  channelPace,
  easeKeys,
  keyChannel,
  moveKey,
  withChannelKeys,
  type ChannelId,
  type Pace,
  type Rider,
} from '@fleet-rail/core';
import { Plus, Trash2 } from 'lucide-react';
import styled from 'styled-components';
import { changeRider } from '../../edits/rider-edits';
import { Button } from '../../ui/button';
import { IconButton } from '../../ui/icon-button';
import { Buttons } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { CHANNELS } from '../../ui/words/channel-names';
import { EASE_LABELS } from '../../ui/words/eases';
import { useDesk, useLiveDeskStore } from '../../state/desk-store';

const Line = styled.div<{ $chosen: boolean }>`
  display: grid;
  grid-template-columns: 68px 64px minmax(0, 1fr) 28px;
  align-items: end;
  gap: 6px;
  padding-left: 6px;
  margin-left: -9px;
  border-left: 3px solid ${({ theme, $chosen }) => ($chosen ? theme.ink : 'transparent')};
`;

/** A heading with the number of keys. */
export function withCount(title: string, { length }: readonly unknown[]): string {
  return length === 0 ? title : `${title} (${length} ${length === 1 ? 'key' : 'keys'})`;
}

/** The keys of a channel: a table that can be edited, and a button for one at the playhead. The diagram shows the line it is of. */
export function KeyList({ rider, channel, name }: { rider: Rider; channel: ChannelId; name: string }) {
  const desk = useLiveDeskStore();
  const edit = useDesk((state) => state.edit);
  const set = useDesk((state) => state.set);
  const frame = useDesk((state) => state.frame);
  const fps = useDesk((state) => state.shot.fps);
  const shown = useDesk((state) => state.line === channel && state.riderId === rider.id);
  const keys = useDesk((state) => state.keys);
  const chosen = shown ? keys : new Set<number>();
  const pace = channelPace(rider, channel);
  const [min, max] = channelLimits(channel);
  const { unit, step } = CHANNELS[channel];
  const change = (label: string, next: (before: Pace) => Pace, gesture?: string) =>
    edit(
      label,
      changeRider(rider.id, (one) => withChannelKeys(one, channel, next(channelPace(one, channel)).keys)),
      gesture,
    );
  const show = (of: ReadonlySet<number>) => set({ line: channel, keys: of });
  /** The present selection: this panel may be updated later than the diagram. */
  const chosenNow = (): ReadonlySet<number> => {
    const { line, riderId, keys: all } = desk.getState();
    return line === channel && riderId === rider.id ? all : new Set();
  };
  return (
    <>
      {pace.keys.map((key, i) => (
        <Line
          key={i}
          $chosen={chosen.has(i)}
          role="group"
          aria-label={`${name}, key ${i + 1}`}
          onFocus={() => !chosenNow().has(i) && show(new Set([i]))}
        >
          <QuantityField
            label="Frame"
            kind="frame"
            fps={fps}
            value={key.frame}
            onChange={(next, gesture) =>
              change('Move key', (before) => moveKey(before, i, next, before.keys[i].value), gesture)
            }
          />
          <QuantityField
            label="Value"
            kind="count"
            unit={unit || undefined}
            value={key.value}
            min={min}
            max={max}
            step={step}
            onChange={(value, gesture) =>
              change('Key', (before) => moveKey(before, i, before.keys[i].frame, value), gesture)
            }
          />
          <Select
            label="Ease"
            options={EASE_LABELS}
            value={key.ease}
            onChange={(ease) =>
              change('Ease', (before) =>
                easeKeys(before, chosenNow().has(i) ? chosenNow() : new Set([i]), ease),
              )
            }
          />
          <IconButton
            label={`Delete key ${i + 1}`}
            onPress={() =>
              change('Delete key', (before) => ({ ...before, keys: before.keys.filter((_, n) => n !== i) }))
            }
          >
            <Trash2 aria-hidden />
          </IconButton>
        </Line>
      ))}
      <Buttons>
        <Button
          onPress={() => {
            edit(
              `Key ${name}`,
              changeRider(rider.id, (one) => keyChannel(one, channel, frame)),
            );
            show(new Set());
          }}
        >
          <Plus aria-hidden /> Key {name} at frame {Math.round(frame)}
        </Button>
      </Buttons>
    </>
  );
}
