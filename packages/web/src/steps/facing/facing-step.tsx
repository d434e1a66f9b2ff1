import type { Facing, Attachment, Rider } from '@fleet-rail/core';
import { changeAttachment } from '../../edits/rider-edits';
import { Choice } from '../../ui/choice';
import { Fold } from '../../ui/fold';
import { FieldPair, Hint, PanelTitle, Section, SectionTitle } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { useDesk, useSelectedRider, type Shows } from '../../state/desk-store';
import { NotRiding } from '../shared/not-riding';
import { AimSection } from './aim-section';
import { ClearanceSection } from '../shared/clearance/clearance-section';
import { AxlesSection } from './axles-section';
import { BankSection } from './bank-section';
import { CameraSection } from './camera-section';
import { KeyList, withCount } from './key-list';
import { RestAimSection } from './rest-aim-section';
import { OffsetSection } from './offset-section';
import { Turntable } from './turntable';

const MODES = [
  { id: 'path', name: 'Along its path' },
  { id: 'aim', name: 'At a target' },
  { id: 'keep', name: 'Rest pose' },
] as const;

const NOSES = [
  { id: 'path', name: 'Its path' },
  { id: 'travel', name: 'Where it goes' },
] as const;

const REFERENCES = [
  { id: 'world', name: 'The world’s' },
  { id: 'path', name: 'The path’s' },
  { id: 'ground', name: 'The ground’s' },
] as const;

const REFERENCE_HINTS = {
  world: 'World up, plus the roll of the path’s points.',
  path: 'Up follows the path without twist: for loops, helices and walls.',
  ground: 'Up is perpendicular to the ground chosen at Contact.',
} as const;

const GHOSTS = [0, 6, 12, 24, 48].map((step) => ({
  id: String(step),
  name: step === 0 ? 'None' : `Every ${step} f`,
}));

const HEATS: readonly { id: Shows['heat']; name: string }[] = [
  { id: 'none', name: 'Line colour' },
  { id: 'speed', name: 'Speed' },
  { id: 'bank', name: 'Bank' },
];

/** Which way the rider looks, how it banks, what it looks at, and its offset from the path. */
export function FacingStep() {
  const rider = useSelectedRider();
  return (
    <>
      <PanelTitle>Facing</PanelTitle>
      {rider?.attachment ? (
        <RidingFacing key={rider.id} rider={rider} attachment={rider.attachment} />
      ) : (
        <>
          <NotRiding rider={rider} />
          {rider && <RestAimSection key={`looks ${rider.id}`} rider={rider} />}
        </>
      )}
      {rider && <CameraSection key={`camera ${rider.id}`} rider={rider} />}
    </>
  );
}

function RidingFacing({ rider, attachment }: { rider: Rider; attachment: Attachment }) {
  const edit = useDesk((state) => state.edit);
  const { facing } = attachment;
  const change = (part: Partial<Attachment>, gesture?: string) =>
    edit(
      'Facing',
      changeAttachment(rider.id, (before) => ({ ...before, ...part })),
      gesture,
    );
  const changeFacing = (part: Partial<Facing>, gesture?: string) =>
    change({ facing: { ...facing, ...part } }, gesture);
  return (
    <>
      <Section aria-label="Nose and roof">
        <SectionTitle>
          {rider.badge} {rider.name} faces
        </SectionTitle>
        <Turntable rider={rider} />
      </Section>
      <Section aria-label="Direction">
        <SectionTitle>Direction</SectionTitle>
        <Choice
          label="Faces"
          options={MODES}
          value={facing.mode}
          onChange={(mode) => changeFacing({ mode })}
        />
        {facing.mode === 'aim' && <AimSection rider={rider} facing={facing} />}
        {facing.mode === 'path' && (
          <FieldPair>
            <Select
              label="Nose along"
              options={NOSES}
              value={facing.along}
              onChange={(along) => changeFacing({ along })}
            />
            {facing.along === 'travel' && (
              <QuantityField
                label="Turn-around time"
                kind="time"
                value={facing.turnTime}
                min={0}
                max={60}
                step={0.1}
                onChange={(turnTime, gesture) => changeFacing({ turnTime }, gesture)}
              />
            )}
          </FieldPair>
        )}
        {facing.mode !== 'keep' && (
          <>
            <Choice
              label="Up is"
              options={REFERENCES}
              value={facing.reference}
              onChange={(reference) => changeFacing({ reference })}
            />
            <Hint>{REFERENCE_HINTS[facing.reference]}</Hint>
          </>
        )}
      </Section>
      <BankSection rider={rider} bank={attachment.bank} />
      <OffsetSection rider={rider} attachment={attachment} />
      <AxlesSection rider={rider} attachment={attachment} />
      {rider.camera && <ClearanceSection key={`clearance ${rider.id}`} rider={rider} />}
      <Fold title={withCount('Path influence', attachment.influence)}>
        <Hint>1 rides its path, 0 stays in its rest pose.</Hint>
        <KeyList rider={rider} channel="attachment" name="ride" />
      </Fold>
      {facing.mode !== 'keep' && (
        <Fold title={withCount('Rotation influence', facing.influence)}>
          <Hint>1 faces as set above, 0 keeps its rest pose.</Hint>
          <KeyList rider={rider} channel="facing" name="facing" />
        </Fold>
      )}
      <ShowsSection />
    </>
  );
}

/** Ghosts, and what the ribbon is coloured by. */
function ShowsSection() {
  const shows = useDesk((state) => state.shows);
  const set = useDesk((state) => state.set);
  return (
    <Section aria-label="Shown on the stage">
      <SectionTitle>Shown on the stage</SectionTitle>
      <FieldPair>
        <Select
          label="Ghosts"
          options={GHOSTS}
          value={String(shows.ghosts)}
          onChange={(step) => set({ shows: { ...shows, ghosts: Number(step) } })}
        />
      </FieldPair>
      <Choice
        label="Colour ribbon by"
        options={HEATS}
        value={shows.heat}
        onChange={(heat) => set({ shows: { ...shows, heat } })}
      />
    </Section>
  );
}
