import { PathError, relay, type Relay, type Rider } from '@fleet-rail/core';
import { useMemo, useState } from 'react';
import { Button, PrimaryButton } from '../../ui/button';
import { CancelButton } from '../../ui/cancel-button';
import { Buttons, FieldGrid, Hint } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { useDesk } from '../desk-store';

/** A long ride as a short loop of several: how many, what it gives, and the button for it. */
export function RelayCard({ rider }: { rider: Rider | null }) {
  const shot = useDesk((state) => state.shot);
  const edit = useDesk((state) => state.edit);
  const [count, setCount] = useState<number | null>(null);
  const id = rider?.id ?? null;
  const built = useMemo(
    () => (id !== null && count !== null ? tried(() => relay(shot, id, count)) : null),
    [shot, id, count],
  );
  if (rider === null || rider.hitch === null) return null;
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
          label="Riders in all"
          kind="count"
          whole
          value={count}
          min={2}
          max={200}
          onChange={setCount}
        />
        <QuantityField
          label="The loop takes"
          kind="time"
          isDisabled={typeof built === 'string'}
          value={frames / shot.fps}
          min={1 / shot.fps}
          step={0.5}
          onChange={(seconds) => {
            if (typeof built === 'string') return;
            setCount(Math.min(200, Math.max(2, Math.round(built.frames / (seconds * shot.fps)))));
          }}
        />
      </FieldGrid>
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
            setCount(null);
          }}
        >
          Make the relay
        </PrimaryButton>
        <CancelButton onCancel={() => setCount(null)} />
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
