import {
  Retime,
  addRetimeKey,
  defaultsOf,
  halfSpeedAround,
  stretchRetime,
  type Rider,
  type RetimeKey,
  type Shot,
} from '@fleet-rail/core';
import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { Button, PrimaryButton } from '../../ui/button';
import { CancelButton } from '../../ui/cancel-button';
import { Choice } from '../../ui/choice';
import { Fold } from '../../ui/fold';
import { IconButton } from '../../ui/icon-button';
import { Buttons, FieldGrid, Hint } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { Tick } from '../../ui/tick';
import { useDesk } from '../../state/desk-store';
import { KEY_EASE_LABELS } from '../../ui/words/eases';
import { Card, CardHead, KeyLine } from './rows';

const Several = styled.div`
  max-height: 150px;
  overflow: auto;
`;

const WHOSE = [
  { id: 'all', name: 'Everything' },
  { id: 'some', name: 'Some riders' },
] as const;

/** Bending time over what is keyed: slow motion, freezes and ramps, the work under it untouched. */
export function RetimeFold() {
  const retimes = useDesk(({ shot }) => shot.retimes);
  const riders = useDesk(({ shot }) => shot.riders);
  const edit = useDesk((state) => state.edit);
  const frame = useDesk((state) => state.frame);
  const { fps, range } = useDesk((state) => state.shot);
  const change = (label: string, next: (list: Shot['retimes']) => Shot['retimes'], gesture?: string) =>
    edit(label, (shot) => ({ ...shot, retimes: next(shot.retimes) }), gesture);
  const put = (i: number, part: Partial<Retime>, gesture?: string) =>
    change('Retime', (list) => list.map((one, k) => (k === i ? { ...one, ...part } : one)), gesture);
  return (
    <Fold title={retimes.length === 0 ? 'Retime' : `Retime (${retimes.length})`} isOpen={retimes.length > 0}>
      <Hint>Changes playback time; keys stay.</Hint>
      {retimes.map((retime, i) => (
        <Card key={i} role="group" aria-label={retime.name}>
          <CardHead>
            <Tick isSelected={!retime.off} onChange={(on) => put(i, { off: !on })}>
              {retime.name}
            </Tick>
            <IconButton
              label={`Delete ${retime.name}`}
              onPress={() => change('Delete a retime', (list) => list.filter((_, k) => k !== i))}
            >
              <Trash2 aria-hidden />
            </IconButton>
          </CardHead>
          <RetimeRiders riders={riders} chosen={retime.riders} onChange={(ids) => put(i, { riders: ids })} />
          <RetimeKeys keys={retime.keys} frame={frame} put={(keys, gesture) => put(i, { keys }, gesture)} />
        </Card>
      ))}
      <Buttons>
        <Button
          onPress={() =>
            change('Add a retime', (list) => [
              ...list,
              {
                ...defaultsOf(Retime),
                name: `Retime ${list.length + 1}`,
                keys: halfSpeedAround(range, fps, frame),
              },
            ])
          }
        >
          <Plus aria-hidden /> Add a retime
        </Button>
      </Buttons>
    </Fold>
  );
}

/** Time that is bent: of everything, or the travel of some riders. */
function RetimeRiders(props: {
  riders: readonly Rider[];
  chosen: readonly string[];
  onChange: (ids: string[]) => void;
}) {
  const { riders, chosen, onChange } = props;
  const selected = useDesk((state) => state.riderId);
  const some = chosen.length > 0;
  return (
    <>
      <Choice
        label="Applies to"
        options={WHOSE}
        value={some ? 'some' : 'all'}
        onChange={(whose) => {
          if ((whose === 'some') !== some) onChange(some || selected === null ? [] : [selected]);
        }}
      />
      {some && (
        <Several role="group" aria-label="Riders">
          {riders.map(({ id, badge, name }) => {
            const on = chosen.includes(id);
            return (
              <Tick
                key={id}
                isSelected={on}
                // With none of them it would be everything's.
                isDisabled={on && chosen.length === 1}
                onChange={() => onChange(on ? chosen.filter((other) => other !== id) : [...chosen, id])}
              >
                {badge} {name}
              </Tick>
            );
          })}
        </Several>
      )}
    </>
  );
}

function RetimeKeys(props: {
  keys: readonly RetimeKey[];
  frame: number;
  put: (keys: RetimeKey[], gesture?: string) => void;
}) {
  const { keys, frame, put } = props;
  const fps = useDesk((state) => state.shot.fps);
  const key = (i: number, part: Partial<RetimeKey>, gesture?: string) =>
    put(
      keys.map((one, k) => (k === i ? { ...one, ...part } : one)),
      gesture,
    );
  const second = Math.round(fps);
  return (
    <>
      {keys.map((one, i) => (
        <KeyLine key={i} role="group" aria-label={`Retime key ${i + 1}`}>
          <QuantityField
            label="At frame"
            kind="frame"
            fps={fps}
            value={one.frame}
            min={i > 0 ? keys[i - 1].frame + 0.01 : undefined}
            max={i + 1 < keys.length ? keys[i + 1].frame - 0.01 : undefined}
            onChange={(at, gesture) => key(i, { frame: at }, gesture)}
          />
          <QuantityField
            label="Source frame"
            kind="frame"
            fps={fps}
            value={one.source}
            onChange={(source, gesture) => key(i, { source }, gesture)}
          />
          <Select
            label="Ease"
            options={KEY_EASE_LABELS}
            value={one.ease}
            onChange={(ease) => key(i, { ease })}
          />
          <IconButton
            label={`Delete retime key ${i + 1}`}
            onPress={() => put(keys.filter((_, k) => k !== i))}
          >
            <Trash2 aria-hidden />
          </IconButton>
        </KeyLine>
      ))}
      <Buttons>
        <Button onPress={() => put(addRetimeKey(keys, frame))}>Key at frame {frame}</Button>
        <Button onPress={() => put(stretchRetime(keys, frame, second, 2 * second))}>
          Half speed from here
        </Button>
        <Button onPress={() => put(stretchRetime(keys, frame, 0, second))}>Freeze here</Button>
      </Buttons>
      <SpanSpeed keys={keys} frame={frame} put={put} />
    </>
  );
}

/** Plays what is shown between two frames at another speed; what follows comes later, or sooner. */
function SpanSpeed(props: { keys: readonly RetimeKey[]; frame: number; put: (keys: RetimeKey[]) => void }) {
  const { keys, frame, put } = props;
  const fps = useDesk((state) => state.shot.fps);
  const [span, setSpan] = useState<{ from: number; to: number; percent: number } | null>(null);
  if (span === null) {
    const begin = () => setSpan({ from: frame, to: frame + Math.round(fps), percent: 50 });
    return (
      <Buttons>
        <Button onPress={begin}>Speed from frame to frame…</Button>
      </Buttons>
    );
  }
  const { from, to, percent } = span;
  const change = (part: Partial<typeof span>) => setSpan({ ...span, ...part });
  const takes = ((to - from) * 100) / percent;
  return (
    <div role="group" aria-label="Speed from frame to frame">
      <FieldGrid>
        <QuantityField
          label="From frame"
          kind="frame"
          fps={fps}
          value={from}
          max={to - 1}
          onChange={(value) => change({ from: value })}
        />
        <QuantityField
          label="To frame"
          kind="frame"
          fps={fps}
          value={to}
          min={from + 1}
          onChange={(value) => change({ to: value })}
        />
        <QuantityField
          label="Speed"
          kind="count"
          unit="%"
          value={percent}
          min={1}
          max={1000}
          step={5}
          onChange={(value) => change({ percent: value })}
        />
      </FieldGrid>
      <Hint role="status">
        Source frames {round2(from)} to {round2(to)} then last until frame {round2(from + takes)}.
      </Hint>
      <Buttons>
        <PrimaryButton
          onPress={() => {
            put(stretchRetime(keys, from, to - from, takes));
            setSpan(null);
          }}
        >
          Set the speed
        </PrimaryButton>
        <CancelButton onCancel={() => setSpan(null)} />
      </Buttons>
    </div>
  );
}

const round2 = (frame: number): number => Math.round(frame * 100) / 100;
