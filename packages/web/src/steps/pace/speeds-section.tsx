import {
  curveRidden,
  SLOWEST,
  addSpeed,
  compilePace,
  type Pace,
  type Rider,
  type SpeedKey,
} from '@fleet-rail/core';
import { Plus, Trash2 } from 'lucide-react';
import { changePace } from '../../edits/rider-edits';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { IconButton } from '../../ui/icon-button';
import { Buttons, Hint, Section, SectionTitle } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { KeyLine } from './rows';

const WAYS = [
  { id: 'frame', name: 'At frames' },
  { id: 'distance', name: 'At distances' },
] as const;

const SPEED_EASE_LABELS: readonly { id: SpeedKey['ease']; name: string }[] = [
  { id: 'smooth', name: 'Smooth' },
  { id: 'linear', name: 'Linear' },
  { id: 'hold', name: 'Hold' },
];

/** How fast, here and there: by frame, or by the place on the path. */
export function SpeedsSection({ rider, pace }: { rider: Rider; pace: Pace }) {
  const desk = useDeskStore();
  const edit = useDesk((state) => state.edit);
  const frame = useDesk((state) => state.frame);
  const { fps, range } = useDesk((state) => state.shot);
  const path = useDesk(({ shot }) => shot.paths.find(({ id }) => id === rider.attachment?.path));
  const { speeds } = pace;
  const byDistance = speeds[0]?.frame === undefined && speeds.length > 0;
  const change = (label: string, next: SpeedKey[], gesture?: string) =>
    edit(
      label,
      changePace(rider.id, (before) => ({ ...before, speeds: next })),
      gesture,
    );
  const put = (i: number, part: Partial<SpeedKey>, gesture?: string) =>
    change(
      'Speed',
      speeds.map((key, k) => (k === i ? { ...key, ...part } : key)),
      gesture,
    );
  const now = (at: number) => {
    const track = curveRidden(desk.getState().shot, rider);
    const run = track && compilePace(pace, fps, track);
    return run ? { place: track.wrap(run.distance(at)), speed: run.speed(at) } : { place: 0, speed: 1 };
  };
  const sign = Math.sign(speeds[0]?.speed ?? 1) || 1;
  const add = (key: SpeedKey) =>
    edit(
      'Add a speed',
      changePace(rider.id, (before) => addSpeed(before, key)),
    );
  const addHere = () => {
    const { place, speed } = now(frame);
    const where = byDistance ? { distance: Number(place.toFixed(2)) } : { frame };
    add({ ...where, speed: Number(speed.toFixed(3)), ease: 'smooth' });
  };
  const turnOver = (way: 'frame' | 'distance') => {
    if ((way === 'distance') === byDistance && speeds.length > 0) return;
    // One speed to begin with: by another measure the others would come somewhere else.
    const { place, speed } = now(range.first);
    const fast = Math.max(SLOWEST, Math.abs(speed) || 1) * (Math.sign(speed) || 1);
    change('Speeds by another measure', [
      way === 'distance'
        ? { distance: Number(place.toFixed(2)), speed: Number(fast.toFixed(3)), ease: 'smooth' }
        : { frame: range.first, speed: Number(speed.toFixed(3)), ease: 'smooth' },
    ]);
  };
  const isOne = speeds.filter(({ speed }) => speed !== 0).length === 1;
  return (
    <Section aria-label="Speeds">
      <SectionTitle>Speeds</SectionTitle>
      <Choice label="Keyed" options={WAYS} value={byDistance ? 'distance' : 'frame'} onChange={turnOver} />
      <Hint>
        {byDistance
          ? 'The speed at these distances along the path, in every lap. '
          : 'The speed at these frames; a negative speed drives backward. '}
        Drag them in the strip, or type here.
        {isOne && ' It keeps this speed however its path changes.'}
      </Hint>
      {speeds.map((key, i) => (
        <KeyLine key={i} role="group" aria-label={`Speed ${i + 1}`}>
          {key.frame === undefined ? (
            <QuantityField
              label="Distance"
              kind="length"
              value={key.distance ?? 0}
              step={0.5}
              min={i > 0 ? (speeds[i - 1].distance ?? 0) + 0.01 : undefined}
              max={i + 1 < speeds.length ? (speeds[i + 1].distance ?? 0) - 0.01 : undefined}
              onChange={(distance, gesture) => put(i, { distance }, gesture)}
            />
          ) : (
            <QuantityField
              label="Frame"
              kind="frame"
              fps={fps}
              value={key.frame}
              min={i > 0 ? (speeds[i - 1].frame ?? 0) + 0.01 : undefined}
              max={i + 1 < speeds.length ? (speeds[i + 1].frame ?? 0) - 0.01 : undefined}
              onChange={(next, gesture) => put(i, { frame: next }, gesture)}
            />
          )}
          <QuantityField
            label="Speed"
            kind="speed"
            value={key.speed}
            step={0.1}
            // A stopped rider with speeds by distance never reaches the next key.
            min={byDistance && sign > 0 ? SLOWEST : undefined}
            max={byDistance && sign < 0 ? -SLOWEST : undefined}
            onChange={(speed, gesture) => put(i, { speed }, gesture)}
          />
          <Select
            label="Ease"
            options={SPEED_EASE_LABELS}
            value={key.ease}
            onChange={(ease) => put(i, { ease })}
          />
          <IconButton
            label={`Delete speed ${i + 1}`}
            onPress={() =>
              change(
                'Delete a speed',
                speeds.filter((_, k) => k !== i),
              )
            }
          >
            <Trash2 aria-hidden />
          </IconButton>
        </KeyLine>
      ))}
      <Buttons>
        <Button onPress={addHere}>
          <Plus aria-hidden /> Speed {byDistance ? 'at this distance' : `at frame ${frame}`}
        </Button>
        {byDistance &&
          path?.marks.map((mark) => (
            <Button
              key={mark.id}
              onPress={() => add({ distance: mark.distance, speed: speeds[0].speed, ease: 'smooth' })}
            >
              At {mark.name}
            </Button>
          ))}
      </Buttons>
    </Section>
  );
}
