import { changeRate, scaleToFit } from '@fleet-rail/core';
import { useState } from 'react';
import { Button } from '../../ui/button';
import { CancelButton } from '../../ui/cancel-button';
import { Buttons, FieldGrid, Hint, Section, SectionTitle } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { useDesk } from '../../state/desk-store';

/** The shot's range and rate. What is keyed can go along with either, which is asked. */
export function ShotSection() {
  const { fps, range } = useDesk((state) => state.shot);
  const edit = useDesk((state) => state.edit);
  const [rate, setRate] = useState<number | null>(null);
  const [last, setLast] = useState<number | null>(null);
  const setRange = (first: number, end: number, gesture?: string) =>
    edit('Range', (shot) => ({ ...shot, range: { first, last: end } }), gesture);
  const take = (keep: 'seconds' | 'frames') => {
    if (rate !== null) edit('Frame rate', (shot) => changeRate(shot, rate, keep));
    setRate(null);
  };
  return (
    <Section aria-label="The shot">
      <SectionTitle>The shot</SectionTitle>
      <FieldGrid>
        <QuantityField
          label="First frame"
          kind="frame"
          fps={fps}
          whole
          value={range.first}
          min={Math.max(-1e6, range.last - 99_999)}
          max={range.last}
          onChange={(first, gesture) => setRange(first, range.last, gesture)}
        />
        <QuantityField
          label="Last frame"
          kind="frame"
          fps={fps}
          whole
          value={range.last}
          min={range.first}
          max={Math.min(1e6, range.first + 99_999)}
          onChange={(next, gesture) => setRange(range.first, next, gesture)}
        />
        <QuantityField
          label="Frame rate"
          kind="count"
          unit="fps"
          value={rate ?? fps}
          min={0.01}
          max={1000}
          onChange={(next) => setRate(next === fps ? null : next)}
        />
      </FieldGrid>
      {rate !== null && (
        <div role="group" aria-label="Change the frame rate">
          <Hint>At {rate} fps: keep the seconds or the frames?</Hint>
          <Buttons>
            <Button onPress={() => take('seconds')}>Keep the seconds</Button>
            <Button onPress={() => take('frames')}>Keep the frames</Button>
            <CancelButton onCancel={() => setRate(null)} />
          </Buttons>
        </div>
      )}
      {last === null ? (
        <Buttons>
          <Button onPress={() => setLast(range.last)}>Scale all to fit…</Button>
        </Buttons>
      ) : (
        <div role="group" aria-label="Scale all to fit">
          <FieldGrid>
            <QuantityField
              label="New last frame"
              kind="frame"
              fps={fps}
              whole
              value={last}
              min={range.first + 1}
              max={range.first + 99_999}
              onChange={setLast}
            />
          </FieldGrid>
          <Hint>Moves every key: the same motion, faster or slower.</Hint>
          <Buttons>
            <Button
              isDisabled={last === range.last}
              onPress={() => {
                edit('Scale to fit', (shot) => scaleToFit(shot, { first: shot.range.first, last }));
                setLast(null);
              }}
            >
              Scale to {last - range.first + 1} frames
            </Button>
            <CancelButton onCancel={() => setLast(null)} />
          </Buttons>
        </div>
      )}
    </Section>
  );
}
