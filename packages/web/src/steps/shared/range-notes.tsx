import { Clock } from 'lucide-react';
import { withFrames } from '../../edits/range-edits';
import { Button } from '../../ui/button';
import { Buttons, Hint, Section } from '../../ui/panel';
import { useDesk } from '../../state/desk-store';

/** Rides that are not over when the range is, each with the range it needs. */
export function RangeNotes({ riderId }: { riderId: string | null }) {
  const checked = useDesk((state) => state.checked);
  const range = useDesk(({ shot }) => shot.range);
  const edit = useDesk((state) => state.edit);
  const notes = (checked?.findings ?? []).filter(
    ({ kind, rider, dismissed }) =>
      kind === 'not-over' && dismissed === null && (riderId === null || rider === riderId),
  );
  if (notes.length === 0) return null;
  const to = Math.max(...notes.map((note) => note.to ?? range.last));
  const frames = to - range.first + 1;
  return (
    <Section aria-label="Range">
      {notes.slice(0, 3).map(({ rider, message }) => (
        <Hint key={rider}>{message}</Hint>
      ))}
      {to > range.last && (
        <Buttons>
          <Button onPress={() => edit('Range', withFrames(frames))}>
            <Clock aria-hidden /> Make the range {frames} frames
          </Button>
        </Buttons>
      )}
    </Section>
  );
}
