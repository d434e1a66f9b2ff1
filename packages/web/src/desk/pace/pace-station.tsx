import { Plus, Trash2 } from 'lucide-react';
import styled from 'styled-components';
import { changeUnit, type Ease, type Pace, type Rider } from '@fleet-rail/core';
import { changePace, placeKey } from '../../edits/rider-edits';
import { Button } from '../../ui/button';
import { IconButton } from '../../ui/icon-button';
import { Buttons, FieldGrid, Hint, PanelTitle, Section, SectionTitle } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { Choice } from '../../ui/choice';
import { useDesk, useSelectedRider } from '../desk-store';
import { NotRiding } from '../not-riding';
import { addKeyAt } from './add-key';

const EASES: readonly { id: Ease; name: string }[] = [
  { id: 'linear', name: 'Steady' },
  { id: 'smooth', name: 'Smooth' },
  { id: 'hold', name: 'Hold' },
  { id: 'handles', name: 'Handles' },
];

const UNITS = [
  { id: 'metres', name: 'Metres' },
  { id: 'laps', name: 'Laps' },
] as const;

const KeyRow = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr 1fr 28px;
  align-items: end;
  gap: 6px;
`;

/** Time the ride: the shot's range, and the selected rider's keys. */
export function PaceStation() {
  const rider = useSelectedRider();
  return (
    <>
      <PanelTitle>Pace</PanelTitle>
      <RangeSection />
      {rider?.hitch ? <KeysSection rider={rider} pace={rider.hitch.pace} /> : <NotRiding rider={rider} />}
    </>
  );
}

function RangeSection() {
  const { fps, range } = useDesk((state) => state.shot);
  const edit = useDesk((state) => state.edit);
  const setRange = (first: number, last: number, gesture?: string) =>
    edit('Range', (shot) => ({ ...shot, range: { first, last } }), gesture);
  return (
    <Section>
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
          onChange={(last, gesture) => setRange(range.first, last, gesture)}
        />
        <QuantityField
          label="Frame rate"
          kind="count"
          unit="fps"
          value={fps}
          min={0.01}
          max={1000}
          onChange={(next, gesture) => edit('Frame rate', (shot) => ({ ...shot, fps: next }), gesture)}
        />
      </FieldGrid>
    </Section>
  );
}

function KeysSection({ rider, pace }: { rider: Rider; pace: Pace }) {
  const edit = useDesk((state) => state.edit);
  const frame = useDesk((state) => state.frame);
  const fps = useDesk((state) => state.shot.fps);
  const length = useDesk((state) => state.evaluation?.paths.get(rider.hitch?.path ?? '')?.length ?? 0);
  const goToFrame = useDesk((state) => state.goToFrame);
  const inLaps = pace.unit === 'laps';
  const change = (part: Partial<Pace>) =>
    edit(
      'Pace',
      changePace(rider.id, (before) => ({ ...before, ...part })),
    );
  const setUnit = (unit: Pace['unit']) => {
    if (length > 0)
      edit(
        'Unit',
        changePace(rider.id, (before) => changeUnit(before, unit, length)),
      );
  };
  return (
    <Section>
      <SectionTitle>
        Keys of {rider.badge} {rider.name}
      </SectionTitle>
      <div>
        <Choice label="Values in" options={UNITS} value={pace.unit} onChange={setUnit} />
      </div>
      <Hint>
        {inLaps
          ? 'A lap is once along the path, however long it is.'
          : 'Metres from the first point of the path.'}{' '}
        Drag a key in the diagram, or type here.
      </Hint>
      {pace.keys.map((key, i) => (
        <KeyRow key={i}>
          <QuantityField
            label="Frame"
            kind="frame"
            fps={fps}
            value={key.frame}
            onChange={(next, gesture) => edit('Move key', placeKey(rider.id, i, next, key.value), gesture)}
          />
          <QuantityField
            label={inLaps ? 'Place, laps' : 'Place'}
            kind={inLaps ? 'count' : 'length'}
            value={key.value}
            step={inLaps ? 0.01 : 0.1}
            digits={4}
            onChange={(next, gesture) => edit('Move key', placeKey(rider.id, i, key.frame, next), gesture)}
          />
          <Select
            label="Then"
            options={EASES}
            value={key.ease}
            onChange={(ease) =>
              change({ keys: pace.keys.map((other, k) => (k === i ? { ...other, ease } : other)) })
            }
          />
          <IconButton
            label={`Delete the key at frame ${key.frame}`}
            onPress={() => change({ keys: pace.keys.filter((_, k) => k !== i) })}
          >
            <Trash2 aria-hidden />
          </IconButton>
        </KeyRow>
      ))}
      <Buttons>
        <Button
          isDisabled={pace.keys.some((key) => key.frame === frame)}
          onPress={() => {
            edit('Add key', addKeyAt(rider.id, frame));
            goToFrame(frame);
          }}
        >
          <Plus aria-hidden /> Key at frame {frame}
        </Button>
      </Buttons>
    </Section>
  );
}
