import { PathError, relay, type Relay, type Rider } from '@fleet-rail/core';
import { useMemo, useState } from 'react';
import { Button, PrimaryButton } from '../../ui/button';
import { CancelButton } from '../../ui/cancel-button';
import { Buttons, FieldGrid, Hint } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { Tick } from '../../ui/tick';
import { useDesk } from '../../state/desk-store';

/** The longest loop, frames. */
const MOST = 100_000;

/** A long ride as a short loop of several: how many, what it gives, and the button for it. */
export function RelayCard({ rider }: { rider: Rider | null }) {
  const shot = useDesk((state) => state.shot);
  const edit = useDesk((state) => state.edit);
  const [count, setCount] = useState<number | null>(null);
  // Null while the loop takes what the ride takes at about the speed it has.
  const [loopFrames, setLoopFrames] = useState<number | null>(null);
  const close = () => {
    setCount(null);
    setLoopFrames(null);
  };
  const id = rider?.id ?? null;
  const built = useMemo(
    () => (id !== null && count !== null ? tried(() => relay(shot, id, count, loopFrames)) : null),
    [shot, id, count, loopFrames],
  );
  if (rider === null || rider.attachment === null) return null;
  if (count === null || built === null) {
    return (
      <Buttons>
        <Button onPress={() => setCount(4)}>Relay of {rider.badge}…</Button>
      </Buttons>
    );
  }
  const frames = typeof built === 'string' ? 0 : built.shot.range.last - built.shot.range.first + 1;
  return (
    <div role="group" aria-label={`Relay of ${rider.badge}`}>
      <FieldGrid>
        <QuantityField
          label="Riders"
          kind="count"
          whole
          value={count}
          min={2}
          max={200}
          onChange={setCount}
        />
        <QuantityField
          label="Loop length"
          kind="time"
          isDisabled={typeof built === 'string'}
          value={frames / shot.fps}
          min={1 / shot.fps}
          step={0.5}
          max={MOST / shot.fps}
          onChange={(seconds) => {
            if (typeof built === 'string') return;
            const wanted = Math.max(1, Math.round(seconds * shot.fps));
            if (loopFrames !== null) setLoopFrames(wanted);
            else setCount(Math.min(200, Math.max(2, Math.round((built.frames * built.rate) / wanted))));
          }}
        />
      </FieldGrid>
      <Tick
        isSelected={loopFrames === null}
        isDisabled={typeof built === 'string'}
        onChange={(keeps) => setLoopFrames(keeps ? null : frames)}
      >
        Keep the speed (links riders and loop length)
      </Tick>
      {typeof built === 'string' ? (
        <Hint role="alert">{built}</Hint>
      ) : (
        <Hint role="status">
          A ride of {built.frames} frames becomes a loop of {frames} with {count} riders: each ends where the
          next one began
          {Math.abs(built.rate - 1) > 1e-9 ? `; speed × ${built.rate.toFixed(4)}` : ''}. The shot’s range
          becomes frames {built.shot.range.first} to {built.shot.range.last}.
        </Hint>
      )}
      <Buttons>
        <PrimaryButton
          isDisabled={typeof built === 'string'}
          onPress={() => {
            if (typeof built !== 'string') edit(`Relay of ${rider.badge}`, () => built.shot);
            close();
          }}
        >
          Make the relay
        </PrimaryButton>
        <CancelButton onCancel={close} />
      </Buttons>
    </div>
  );
}

/** The relay, or why there is none. */
function tried(make: () => Relay): Relay | string {
  try {
    return make();
  } catch (error) {
    if (error instanceof PathError) return error.message;
    throw error;
  }
}
