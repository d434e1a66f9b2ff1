import {
  addStop,
  curveRidden,
  DRIVE_PRESETS,
  driveCell,
  driveSeconds,
  frameCount,
  isCoarseDrive,
  topSpeedFor,
  type Drive,
  type Mark,
  type Pace,
  type Rider,
  metresPerValue,
} from '@fleet-rail/core';
import { Plus, Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import styled from 'styled-components';
import { withFrames } from '../../edits/range-edits';
import { changePace } from '../../edits/rider-edits';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Fold } from '../../ui/fold';
import { IconButton } from '../../ui/icon-button';
import { Buttons, FieldGrid, Hint, Section, SectionTitle } from '../../ui/panel';
import { showNumber } from '../../ui/quantity';
import { QuantityField } from '../../ui/quantity-field';
import { QuantityFields, type NumberOf } from '../../ui/quantity-fields';
import { Tick } from '../../ui/tick';
import { useDesk } from '../../state/desk-store';

const PRESETS = (Object.keys(DRIVE_PRESETS) as (keyof typeof DRIVE_PRESETS)[]).map((id) => ({
  id,
  name: id[0].toUpperCase() + id.slice(1),
}));
type Preset = keyof typeof DRIVE_PRESETS | 'own';

const ENDS = [
  { id: 'rest', name: 'Stopped' },
  { id: 'rolling', name: 'At speed' },
] as const;

const WAYS = [
  { id: 'along', name: 'Along the path' },
  { id: 'against', name: 'Against it' },
] as const;

/** Limits of a drive, except its jerk, which may be unlimited. */
const POSITIVE = { min: 0.01, max: 1e6, step: 0.1 };
const DRIVEN_WITHIN: readonly NumberOf<Drive>[] = [
  { of: 'top', label: 'Top speed', kind: 'speed', ...POSITIVE },
  { of: 'accelerate', label: 'Speeding up', kind: 'count', unit: 'm/s²', ...POSITIVE },
  { of: 'brake', label: 'Braking', kind: 'count', unit: 'm/s²', ...POSITIVE },
  { of: 'sideways', label: 'Side grip', kind: 'count', unit: 'm/s²', ...POSITIVE },
];

const Line = styled.div<{ $columns: string }>`
  display: grid;
  grid-template-columns: ${({ $columns }) => $columns};
  align-items: end;
  gap: 6px;
`;

const Labelled = styled.div`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
`;

/** Letting it be driven: limits, stops and slow stretches; the timing follows from them. */
export function DriveSection({ rider, pace }: { rider: Rider; pace: Pace }) {
  const shot = useDesk((state) => state.shot);
  const edit = useDesk((state) => state.edit);
  const set = useDesk((state) => state.set);
  const { drive } = pace;
  const { fps, range } = shot;
  const [refusal, setRefusal] = useState<string | null>(null);
  const path = shot.paths.find(({ id }) => id === rider.attachment?.path);
  const track = curveRidden(shot, rider);
  const metres = track ? metresPerValue(pace, track) : 1;
  const seconds = useMemo(() => (track ? driveSeconds(pace, track, metres) : null), [pace, track, metres]);
  const begins = Math.max(range.first, pace.start.frame);
  // The frame after the last is the first again in a loop; else it is there at the last.
  const needed =
    seconds === null ? null : Math.ceil(begins - range.first + seconds * fps - 1e-6) + (shot.loop ? 0 : 1);
  const change = (part: Partial<Drive>, gesture?: string) =>
    edit(
      'Drive',
      changePace(rider.id, (before) => ({ ...before, drive: { ...before.drive, ...part } })),
      gesture,
    );
  const preset = PRESETS.find(({ id }) =>
    Object.entries(DRIVE_PRESETS[id]).every(([key, value]) => drive[key as keyof Drive] === value),
  );
  const fit = () => {
    if (track === null) return;
    const left = range.last + (shot.loop ? 1 : 0) - begins;
    const top = topSpeedFor(pace, track, metres, left / fps);
    setRefusal(
      top === null
        ? `No top speed makes it last ${(left / fps).toFixed(2)} s: the other limits and the stops alone take longer, or it would have to crawl.`
        : null,
    );
    if (top !== null) change({ top: Number(top.toPrecision(9)) });
  };
  const begin = (kind: 'pickStop' | 'dragZone') =>
    set({ tool: { kind, riderId: rider.id }, pathId: path?.id ?? null, points: new Set() });
  return (
    <Section aria-label="Drive">
      <SectionTitle>Driven</SectionTitle>
      <Choice<Preset>
        label="Preset"
        options={PRESETS}
        value={preset?.id ?? 'own'}
        onChange={(id) => id !== 'own' && change(DRIVE_PRESETS[id])}
      />
      {seconds !== null && (
        <Hint role="status">
          {track?.closed ? 'A lap takes' : 'It takes'} {seconds.toFixed(2)} s, {Math.round(seconds * fps)}{' '}
          frames.
        </Hint>
      )}
      {track && isCoarseDrive(track.length) && (
        <Hint>
          On a path this long, bends and limits are looked at every {showNumber(driveCell(track.length), 1)}{' '}
          m.
        </Hint>
      )}
      <FieldGrid>
        <QuantityFields fields={DRIVEN_WITHIN} value={drive} onChange={change} />
        <QuantityField
          label="Jerk"
          kind="count"
          unit="m/s³"
          value={drive.jerk ?? 0}
          isDisabled={drive.jerk === null}
          step={0.1}
          min={0.01}
          max={1e6}
          onChange={(jerk, gesture) => change({ jerk }, gesture)}
        />
      </FieldGrid>
      <Tick isSelected={drive.jerk !== null} onChange={(on) => change({ jerk: on ? 8 : null })}>
        Limit jerk
      </Tick>
      <Labelled>
        Departs{' '}
        <Choice
          label="Departs"
          options={ENDS}
          value={drive.departs}
          onChange={(departs) => change({ departs })}
        />
      </Labelled>
      {path && !path.closed && (
        <Labelled>
          Arrives{' '}
          <Choice
            label="Arrives"
            options={ENDS}
            value={drive.arrives}
            onChange={(arrives) => change({ arrives })}
          />
        </Labelled>
      )}
      <Labelled>
        Direction{' '}
        <Choice label="Direction" options={WAYS} value={drive.way} onChange={(way) => change({ way })} />
      </Labelled>
      <Buttons>
        <Button onPress={fit}>Fit its top speed to the range</Button>
        {needed !== null && needed < frameCount(shot) && (
          <Button onPress={() => edit('Range', withFrames(needed))}>Make the range {needed} frames</Button>
        )}
      </Buttons>
      {refusal && <Hint role="alert">{refusal}</Hint>}
      <StopsFold
        drive={drive}
        marks={path?.marks ?? []}
        fps={fps}
        change={change}
        onPick={() => begin('pickStop')}
      />
      <ZonesFold
        drive={drive}
        length={track?.length ?? null}
        change={change}
        onDrag={() => begin('dragZone')}
      />
    </Section>
  );
}

type Change = (part: Partial<Drive>, gesture?: string) => void;

/** Stops and their durations. */
function StopsFold(props: {
  drive: Drive;
  marks: readonly Mark[];
  fps: number;
  change: Change;
  onPick: () => void;
}) {
  const { drive, marks, fps, change, onPick } = props;
  const [typed, setTyped] = useState({ distance: 0, seconds: 2 });
  const stopHere = (distance: number, seconds = 2) =>
    change({ stops: addStop(drive, { distance: Number(distance.toFixed(3)), seconds }) });
  return (
    <Fold title={`Stops (${drive.stops.length})`} isOpen={drive.stops.length > 0}>
      {drive.stops.map((stop, i) => (
        <Line key={i} $columns="1fr 1fr 28px" role="group" aria-label={`Stop ${i + 1}`}>
          <QuantityField
            label="Distance"
            kind="length"
            value={stop.distance}
            step={0.1}
            onChange={(distance, gesture) =>
              change({ stops: replaced(drive.stops, i, { ...stop, distance }) }, gesture)
            }
          />
          <QuantityField
            label="Stops for"
            kind="time"
            fps={fps}
            value={stop.seconds}
            step={0.1}
            min={0}
            max={1e6}
            onChange={(wait, gesture) =>
              change({ stops: replaced(drive.stops, i, { ...stop, seconds: wait }) }, gesture)
            }
          />
          <IconButton
            label={`Delete stop ${i + 1}`}
            onPress={() => change({ stops: drive.stops.filter((_, k) => k !== i) })}
          >
            <Trash2 aria-hidden />
          </IconButton>
        </Line>
      ))}
      <FieldGrid>
        <QuantityField
          label="Stop at"
          kind="length"
          value={typed.distance}
          step={0.5}
          onChange={(distance) => setTyped({ ...typed, distance })}
        />
        <QuantityField
          label="For"
          kind="time"
          fps={fps}
          value={typed.seconds}
          step={0.5}
          min={0}
          max={1e6}
          onChange={(seconds) => setTyped({ ...typed, seconds })}
        />
      </FieldGrid>
      <Buttons>
        <Button onPress={() => stopHere(typed.distance, typed.seconds)}>
          <Plus aria-hidden /> Add this stop
        </Button>
        <Button onPress={onPick}>
          <Plus aria-hidden /> Stop: click the path
        </Button>
        {marks.map((mark) => (
          <Button key={mark.id} onPress={() => stopHere(mark.distance)}>
            Stop at {mark.name}
          </Button>
        ))}
      </Buttons>
    </Fold>
  );
}

/** Slow stretches. */
function ZonesFold(props: { drive: Drive; length: number | null; change: Change; onDrag: () => void }) {
  const { drive, length, change, onDrag } = props;
  return (
    <Fold title={`Slow stretches (${drive.zones.length})`} isOpen={drive.zones.length > 0}>
      {drive.zones.map((zone, i) => (
        <Line key={i} $columns="1fr 1fr 1fr 28px" role="group" aria-label={`Slow stretch ${i + 1}`}>
          {(['from', 'to'] as const).map((end) => (
            <QuantityField
              key={end}
              label={end === 'from' ? 'From' : 'To'}
              kind="length"
              value={zone[end]}
              step={0.1}
              onChange={(value, gesture) =>
                change({ zones: replaced(drive.zones, i, { ...zone, [end]: value }) }, gesture)
              }
            />
          ))}
          <QuantityField
            label="At most"
            kind="speed"
            value={zone.speed}
            step={0.1}
            min={0.01}
            max={1e6}
            onChange={(speed, gesture) =>
              change({ zones: replaced(drive.zones, i, { ...zone, speed }) }, gesture)
            }
          />
          <IconButton
            label={`Delete slow stretch ${i + 1}`}
            onPress={() => change({ zones: drive.zones.filter((_, k) => k !== i) })}
          >
            <Trash2 aria-hidden />
          </IconButton>
        </Line>
      ))}
      <Buttons>
        <Button onPress={onDrag}>
          <Plus aria-hidden /> Drag along the path
        </Button>
        <Button
          onPress={() =>
            change({
              zones: [...drive.zones, { from: 0, to: Math.min(10, length ?? 10), speed: drive.top / 2 }],
            })
          }
        >
          Add by numbers
        </Button>
      </Buttons>
    </Fold>
  );
}

function replaced<T>(list: readonly T[], i: number, item: T): T[] {
  return list.map((other, k) => (k === i ? item : other));
}
