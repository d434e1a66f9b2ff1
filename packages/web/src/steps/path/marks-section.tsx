import type { ShotPath } from '@fleet-rail/core';
import { MapPin, Trash2 } from 'lucide-react';
import styled from 'styled-components';
import { changeMark, deleteMark } from '../../edits/path-edits';
import { Button } from '../../ui/button';
import { TextField } from '../../ui/fields';
import { IconButton } from '../../ui/icon-button';
import { Buttons, Hint, Section, SectionTitle } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { useDesk, useDeskStore, useSelectedRider } from '../../state/desk-store';
import { markAt } from '../../commands/at-place';
import { riderPose } from '../../state/rider-pose';
import { POSE, compiledPathOf, PathError } from '@fleet-rail/core';

const MarkRow = styled.div`
  display: grid;
  grid-template-columns: 1fr 92px 28px;
  align-items: end;
  gap: 6px;
`;

/** Named places along the path. */
export function MarksSection({ path }: { path: ShotPath }) {
  const desk = useDeskStore();
  const edit = useDesk((state) => state.edit);
  const set = useDesk((state) => state.set);
  const rider = useSelectedRider();
  const riding = rider?.attachment?.path === path.id;
  const addAtRider = () => {
    const curve = compiledPathOf(path);
    const pose = rider && riderPose(desk.getState(), rider);
    if (pose && !(curve instanceof PathError)) markAt(desk, path, curve.wrap(pose[POSE.distance]));
  };
  return (
    <Section aria-label="Marks">
      <SectionTitle>Marks</SectionTitle>
      {path.marks.length === 0 && (
        <Hint>Names for positions along the path, such as "gate" or "stop 1".</Hint>
      )}
      {path.marks.map((mark) => (
        <MarkRow key={mark.id}>
          <TextField
            label="Name"
            value={mark.name}
            maxLength={200}
            onChange={(name) =>
              name.trim() !== '' &&
              edit('Rename mark', changeMark(path.id, mark.id, { name }), `mark ${mark.id}`)
            }
          />
          <QuantityField
            label="At"
            kind="length"
            value={mark.distance}
            min={0}
            max={1e6}
            step={0.5}
            onChange={(distance, gesture) =>
              edit('Move mark', changeMark(path.id, mark.id, { distance }), gesture)
            }
          />
          <IconButton
            label={`Delete ${mark.name}`}
            onPress={() => edit('Delete mark', deleteMark(path.id, mark.id))}
          >
            <Trash2 aria-hidden />
          </IconButton>
        </MarkRow>
      ))}
      <Buttons>
        <Button onPress={() => set({ tool: { kind: 'mark' } })}>
          <MapPin aria-hidden /> Add a mark
        </Button>
        {riding && <Button onPress={addAtRider}>Mark where {rider.badge} is</Button>}
      </Buttons>
    </Section>
  );
}
