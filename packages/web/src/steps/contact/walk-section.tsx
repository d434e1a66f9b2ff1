import type { FoundGait, Gait, Rider } from '@fleet-rail/core';
import { Footprints, Ruler } from 'lucide-react';
import type { KeptModel } from '../../api/models';
import { changeGait, takeGait } from '../../edits/contact-edits';
import { changeRider } from '../../edits/rider-edits';
import { Button, PrimaryButton } from '../../ui/button';
import { IconButton } from '../../ui/icon-button';
import { Buttons, FieldPair, Hint, Section, SectionTitle } from '../../ui/panel';
import { QuantityFields, type NumberOf } from '../../ui/quantity-fields';
import { Select } from '../../ui/select';
import { Tick } from '../../ui/tick';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { ActsFold } from './acts-fold';
import type { ChangeGait } from './change-gait';
import { ClipsFrom } from './clips-from';
import { FeetFold } from './feet-fold';
import { QuickHint } from './quick-hint';
import { useGaits } from '../../state/use-gaits';
import { WheelLine } from './wheel-rows';
import { attemptAsked } from '../../commands/attempt';

const NONE = ' none';

/** Walk of the selected rider: its clip follows the distance travelled. */
export function WalkSection({ rider, model }: { rider: Rider; model: KeptModel | null }) {
  const edit = useDesk((state) => state.edit);
  const { gait } = rider;
  const gaits = useGaits(rider, model);
  if (gait === null && gaits.length === 0 && rider.kind !== 'character') return null;
  const named = gaits.map(({ clip }) => ({ id: clip, name: clip }));
  const own =
    gait && !gaits.some(({ clip }) => clip === gait.clip) ? [{ id: gait.clip, name: gait.clip }] : [];
  const walks = gaits.find(({ stride }) => stride > 0);
  const take = (clip: string) => {
    if (clip === NONE)
      edit(
        'Walk',
        changeRider(rider.id, (before) => ({ ...before, gait: null })),
      );
    else edit('Walk', takeGait(rider.id, clip, gaits));
  };
  return (
    <Section aria-label="Walk">
      <SectionTitle>Walk</SectionTitle>
      {gait === null && walks && (
        <>
          <Hint>
            “{walks.clip}” walks on {walks.feet.length} feet, {walks.stride.toFixed(2)} m a cycle.
          </Hint>
          <Buttons>
            <PrimaryButton onPress={() => take(walks.clip)}>
              <Footprints aria-hidden /> Walk by distance
            </PrimaryButton>
          </Buttons>
        </>
      )}
      {(gait !== null || !walks) && (
        <Select
          label="Clip"
          options={[{ id: NONE, name: 'None' }, ...own, ...named]}
          value={gait?.clip ?? NONE}
          onChange={take}
        />
      )}
      <ClipsFrom rider={rider} model={model} />
      {gait === null && !walks && gaits.length > 0 && <Hint>No walk clip found.</Hint>}
      {gait !== null && (
        <GaitSettings
          rider={rider}
          gait={gait}
          gaits={gaits}
          model={model}
          onMeasure={() => take(gait.clip)}
        />
      )}
    </Section>
  );
}

type OwnClip = 'idle' | 'startClip' | 'stopClip';

/** A clip that a walk may have besides its own. */
function OtherClip(props: {
  of: OwnClip;
  label: string;
  none: string;
  gait: Gait;
  gaits: readonly FoundGait[];
  change: ChangeGait;
}) {
  const { of, label, none, gait, gaits, change } = props;
  return (
    <Select
      label={label}
      options={[{ id: NONE, name: none }, ...gaits.map(({ clip }) => ({ id: clip, name: clip }))]}
      value={gait[of] ?? NONE}
      onChange={(clip) => change({ [of]: clip === NONE ? null : clip })}
    />
  );
}

/** How a rider that walks sets its feet, and what it does when it does not walk. */
function GaitSettings(props: {
  rider: Rider;
  gait: Gait;
  gaits: readonly FoundGait[];
  model: KeptModel | null;
  onMeasure: () => void;
}) {
  const { rider, gait, gaits, model, onMeasure } = props;
  const desk = useDeskStore();
  const edit = useDesk((state) => state.edit);
  const found = gaits.find(({ clip }) => clip === gait.clip);
  const feetless = gait.feet.length === 0;
  const change: ChangeGait = (part, gesture) => edit('Walk', changeGait(rider.id, part), gesture);
  const fields = (...list: NumberOf<Gait>[]) => (
    <QuantityFields fields={list} value={gait} onChange={change} />
  );
  const clips = { gait, gaits, change };
  return (
    <>
      {feetless && (
        <Hint>
          {found && found.stride === 0
            ? `No feet were found in “${gait.clip}”. Name them below, or set the stride by hand.`
            : 'No feet known: sliding is not measured or prevented.'}
        </Hint>
      )}
      <WheelLine>
        {fields({ of: 'stride', label: 'Stride', kind: 'length', min: 0.000001, step: 0.01, digits: 4 })}
        <IconButton
          label="Measure stride and feet from model"
          isDisabled={!found || found.stride === 0}
          onPress={onMeasure}
        >
          <Ruler aria-hidden />
        </IconButton>
        {fields({ of: 'phase', label: 'Begins at', kind: 'count', step: 0.05 })}
      </WheelLine>
      <QuickHint rider={rider} rate={1 / gait.stride} by="distance" />
      <Tick isSelected={gait.plant} isDisabled={feetless} onChange={(plant) => change({ plant })}>
        Lock feet to the ground
      </Tick>
      <FieldPair>
        <OtherClip of="idle" label="While stopped" none="Hold the last pose" {...clips} />
        {fields({ of: 'blend', label: 'Blend', kind: 'time', min: 0, step: 0.05 })}
      </FieldPair>
      <FieldPair>
        <OtherClip of="startClip" label="Start clip" none="Automatic" {...clips} />
        <OtherClip of="stopClip" label="Stop clip" none="Automatic" {...clips} />
      </FieldPair>
      <Hint>Automatic: the model’s clip by name, or a step.</Hint>
      {fields({
        of: 'cadence',
        label: 'Warn above',
        kind: 'count',
        unit: 'steps/s',
        min: 0,
        max: 100,
        step: 0.1,
      })}
      <Buttons>
        <Button
          isDisabled={feetless}
          onPress={() => void attemptAsked(desk, 'Move stops', 'naturalStops', rider.id)}
        >
          Move stops to natural poses
        </Button>
      </Buttons>
      <ActsFold rider={rider} {...clips} />
      <FeetFold gait={gait} nodes={model?.facts.nodes ?? []} change={change} />
    </>
  );
}
