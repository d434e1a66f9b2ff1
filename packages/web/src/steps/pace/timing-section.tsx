import {
  startPaceAt,
  changeMode,
  curveRidden,
  metresPerValue,
  type Pace,
  type Rider,
} from '@fleet-rail/core';
import { useState } from 'react';
import { changePace } from '../../edits/rider-edits';
import { Choice } from '../../ui/choice';
import { FieldPair, Hint, Section, SectionTitle } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { useDesk, useDeskStore } from '../../state/desk-store';

const MODES = [
  { id: 'keys', name: 'By keys' },
  { id: 'speed', name: 'By speed' },
  { id: 'drive', name: 'Driven' },
] as const;

/** How a rider is timed, and where it begins. Another way keeps the motion, as near as it can be kept. */
export function TimingSection({ rider, pace }: { rider: Rider; pace: Pace }) {
  const desk = useDeskStore();
  const edit = useDesk((state) => state.edit);
  const { fps } = useDesk((state) => state.shot);
  const length = useDesk((state) => state.evaluation?.paths.get(rider.attachment?.path ?? '')?.length ?? 0);
  const [reported, setReported] = useState<{ pace: Pace; text: string } | null>(null);
  const metres = metresPerValue(pace, { length: length || 1 });
  const change = (mode: Pace['mode']) => {
    const { shot } = desk.getState();
    const track = curveRidden(shot, rider);
    if (track === null || mode === pace.mode) return;
    const { pace: next, distanceError, speedError } = changeMode(pace, mode, shot.fps, track, shot.range);
    edit(
      `Time ${MODES.find(({ id }) => id === mode)?.name.toLowerCase()}`,
      changePace(rider.id, () => next),
    );
    const count = mode === 'keys' ? next.keys.length : next.speeds.length;
    setReported({
      pace: next,
      text:
        mode === 'drive'
          ? `Its highest speed, acceleration, braking and grip are the limits now; its stops are kept. A drive uses them fully: it differs by up to ${distanceError.toFixed(2)} m.`
          : `The same motion by ${count} keys, within ${(distanceError * 1000).toFixed(2)} mm and ${speedError.toFixed(3)} m/s.`,
    });
  };
  const first = pace.mode === 'keys' ? (pace.keys[0] ?? pace.start) : pace.start;
  const begin = (frame: number, value: number, gesture?: string) =>
    edit(
      'Start',
      changePace(rider.id, (before) => startPaceAt(before, frame, value)),
      gesture,
    );
  return (
    <Section aria-label="Pace">
      <SectionTitle>
        Pace of {rider.badge} {rider.name}
      </SectionTitle>
      <Choice label="Mode" options={MODES} value={pace.mode} onChange={change} />
      {reported?.pace === pace && <Hint role="status">{reported.text}</Hint>}
      <FieldPair>
        <QuantityField
          label="Starts at frame"
          kind="frame"
          fps={fps}
          value={first.frame}
          onChange={(frame, gesture) => begin(frame, first.value, gesture)}
        />
        <QuantityField
          label={
            length > 0 ? `Starts at (${(((first.value * metres) / length) * 100).toFixed(1)} %)` : 'Starts at'
          }
          kind="length"
          value={first.value * metres}
          step={0.1}
          onChange={(value, gesture) => begin(first.frame, value / metres, gesture)}
        />
      </FieldPair>
    </Section>
  );
}
