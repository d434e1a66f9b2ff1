import {
  changeUnit,
  easeKeys,
  insertKey,
  moveKey,
  quantiseKeys,
  stopAtKey,
  swapEnds,
  type Ease,
  type Pace,
  type PaceKey,
  type Rider,
} from '@fleet-rail/core';
import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { changeAttachment, changePace } from '../../edits/rider-edits';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { IconButton } from '../../ui/icon-button';
import { Buttons, FieldGrid, FieldPair, Hint, Section, SectionTitle } from '../../ui/panel';
import { showNumber } from '../../ui/quantity';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { Tick } from '../../ui/tick';
import { useDesk, useLiveDeskStore, useShownChannel } from '../../state/desk-store';
import { shownChannel } from '../../state/selection';

const PACE_EASE_LABELS: readonly { id: Ease; name: string }[] = [
  { id: 'linear', name: 'Linear' },
  { id: 'smooth', name: 'Smooth' },
  { id: 'hold', name: 'Hold' },
  { id: 'handles', name: 'Handles' },
];

const UNITS = [
  { id: 'metres', name: 'Metres' },
  { id: 'laps', name: 'Laps' },
] as const;

const NONE: ReadonlySet<number> = new Set();

const KeyRow = styled.div<{ $chosen: boolean }>`
  display: grid;
  grid-template-columns: 1fr 1fr 1fr 28px;
  align-items: end;
  gap: 6px;
  padding-left: 6px;
  margin-left: -9px;
  border-left: 3px solid ${({ theme, $chosen }) => ($chosen ? theme.ink : 'transparent')};
`;

/** The keys of a pace: a table that can be edited, and what can be done with those that are chosen. */
export function KeysSection({ rider, pace }: { rider: Rider; pace: Pace }) {
  const desk = useLiveDeskStore();
  const edit = useDesk((state) => state.edit);
  const set = useDesk((state) => state.set);
  const frame = useDesk((state) => state.frame);
  const all = useDesk((state) => state.keys);
  // While another line of the rider is shown, what is chosen is of that.
  const isShown = useShownChannel() === null;
  const chosen = isShown ? all : NONE;
  const fps = useDesk((state) => state.shot.fps);
  const length = useDesk((state) => state.evaluation?.paths.get(rider.attachment?.path ?? '')?.length ?? 0);
  const inLaps = pace.unit === 'laps';
  const change = (label: string, next: (before: Pace) => Pace, gesture?: string) =>
    edit(label, changePace(rider.id, next), gesture);
  const put = (i: number, part: Partial<PaceKey>, gesture?: string) =>
    change(
      'Key',
      (before) => ({ ...before, keys: before.keys.map((key, k) => (k === i ? { ...key, ...part } : key)) }),
      gesture,
    );
  const place = (i: number, at: number, value: number, gesture?: string) =>
    change('Move key', (before) => moveKey(before, i, at, value), gesture);
  /** The present selection: this panel may be updated later than the diagram. */
  const chosenNow = (): ReadonlySet<number> => {
    const { line, keys } = desk.getState();
    return shownChannel(rider, line) === null ? keys : NONE;
  };
  /** Of a key that is chosen with others, that of all of them. */
  const setEase = (i: number, ease: Ease) => {
    const now = chosenNow();
    change('Ease', (before) => easeKeys(before, now.has(i) ? now : new Set([i]), ease));
  };
  // Its ends swapped, it goes tail first: turning it is offered until they are swapped back.
  const [swapped, setSwapped] = useState(false);
  const [stands, setStands] = useState(1);
  const along = rider.attachment?.facing.along ?? 'path';
  const only = chosen.size === 1 ? [...chosen][0] : null;
  const stop = only ?? pace.keys.findLastIndex((key) => key.frame <= frame);
  return (
    <Section aria-label="Keys">
      <SectionTitle>Keys</SectionTitle>
      <Choice
        label="Values in"
        options={UNITS}
        value={pace.unit}
        onChange={(unit) => length > 0 && change('Unit', (before) => changeUnit(before, unit, length))}
      />
      <Hint>
        {inLaps ? 'One lap is the whole path. ' : 'Metres from the path’s first point. '}
        Drag keys and stretches in the diagram, or type here.
      </Hint>
      <Tick
        isSelected={pace.stretches}
        onChange={(stretches) => change('Stretch with the path', (before) => ({ ...before, stretches }))}
      >
        Stretch with the path
      </Tick>
      {pace.keys.map((key, i) => (
        <KeyRow
          key={i}
          $chosen={chosen.has(i)}
          role="group"
          aria-label={`Key ${i + 1}`}
          onFocus={() => !chosenNow().has(i) && set({ line: 'distance', keys: new Set([i]) })}
        >
          <QuantityField
            label="Frame"
            kind="frame"
            fps={fps}
            value={key.frame}
            onChange={(next, gesture) => place(i, next, key.value, gesture)}
          />
          <QuantityField
            label={inLaps ? 'Distance, laps' : 'Distance'}
            kind={inLaps ? 'count' : 'length'}
            value={key.value}
            step={inLaps ? 0.01 : 0.1}
            digits={4}
            onChange={(next, gesture) => place(i, key.frame, next, gesture)}
          />
          <Select
            label="Ease"
            options={PACE_EASE_LABELS}
            value={key.ease}
            onChange={(ease) => setEase(i, ease)}
          />
          <IconButton
            label={`Delete the key at frame ${showNumber(key.frame, 2)}`}
            onPress={() =>
              change('Delete key', (before) => ({ ...before, keys: before.keys.filter((_, k) => k !== i) }))
            }
          >
            <Trash2 aria-hidden />
          </IconButton>
        </KeyRow>
      ))}
      {only !== null && pace.keys[only] && <HandleFields pace={pace} i={only} put={put} />}
      <Buttons>
        <Button
          isDisabled={pace.keys.some((key) => key.frame === frame)}
          onPress={() => change('Add key', (before) => insertKey(before, frame))}
        >
          <Plus aria-hidden /> Key at frame {frame}
        </Button>
        <Button
          isDisabled={pace.keys.length < 2}
          onPress={() => {
            change('Swap ends', swapEnds);
            setSwapped(!swapped);
          }}
        >
          Swap ends
        </Button>
        <Button onPress={() => change('To whole frames', quantiseKeys)}>To whole frames</Button>
        <Button
          isDisabled={pace.keys.every(({ ease }) => ease === 'smooth')}
          onPress={() => change('Ease', (before) => easeKeys(before, new Set(before.keys.keys()), 'smooth'))}
        >
          Set all to smooth
        </Button>
      </Buttons>
      <FieldPair>
        <QuantityField
          label="Stop for"
          kind="time"
          value={stands}
          min={1 / fps}
          step={0.5}
          onChange={setStands}
        />
        <Button
          isDisabled={stop < 0}
          onPress={() => {
            change('Make a stop', (before) => stopAtKey(before, stop, Math.max(1, Math.round(stands * fps))));
            set({ line: 'distance', keys: new Set([stop]) });
          }}
        >
          Stop at key {stop + 1}
        </Button>
      </FieldPair>
      {swapped && (
        <Tick
          isSelected={along === 'travel'}
          onChange={(on) =>
            edit(
              'Nose along',
              changeAttachment(rider.id, (before) => ({
                ...before,
                facing: { ...before.facing, along: on ? 'travel' : 'path' },
              })),
            )
          }
        >
          Turn {rider.badge} to face where it goes
        </Tick>
      )}
    </Section>
  );
}

/** The handles of the chosen key, where a stretch beside it is drawn by them. */
function HandleFields(props: {
  pace: Pace;
  i: number;
  put: (i: number, part: Partial<PaceKey>, gesture?: string) => void;
}) {
  const { pace, i, put } = props;
  const key = pace.keys[i];
  const sides = [
    ...(pace.keys[i - 1]?.ease === 'handles' ? (['in'] as const) : []),
    ...(key.ease === 'handles' ? (['out'] as const) : []),
  ];
  return sides.map((side) => (
    <FieldGrid key={side} role="group" aria-label={side === 'in' ? 'Handle in' : 'Handle out'}>
      <QuantityField
        label={side === 'in' ? 'In, frames' : 'Out, frames'}
        kind="count"
        value={key[side][0]}
        min={side === 'in' ? -1e5 : 0}
        max={side === 'in' ? 0 : 1e5}
        onChange={(frames, gesture) => put(i, { [side]: [frames, key[side][1]] }, gesture)}
      />
      <QuantityField
        label={pace.unit}
        kind="count"
        value={key[side][1]}
        step={pace.unit === 'laps' ? 0.01 : 0.1}
        digits={4}
        onChange={(value, gesture) => put(i, { [side]: [key[side][0], value] }, gesture)}
      />
    </FieldGrid>
  ));
}
