import type { Rider, Wheel } from '@fleet-rail/core';
import { Ruler, Trash2 } from 'lucide-react';
import type { KeptModel } from '../../api/models';
import {
  addWheel,
  changeBall,
  changeWheel,
  measureWheel,
  removeWheel,
  takeRig,
} from '../../edits/contact-edits';
import { Button, PrimaryButton } from '../../ui/button';
import { Fold } from '../../ui/fold';
import { IconButton } from '../../ui/icon-button';
import { Buttons, Hint, Section, SectionTitle } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { Tick } from '../../ui/tick';
import { useDesk } from '../../state/desk-store';
import { wheelPlace } from '../../ui/words/wheel-place';
import { BodyFold } from './body-fold';
import { WheelCard, WheelHead, WheelLine } from './wheel-rows';

/** The wheels of the selected rider, or the ball it is: found in its model, and corrected here or on the stage. */
export function RigSection({ rider, model }: { rider: Rider; model: KeptModel | null }) {
  const edit = useDesk((state) => state.edit);
  const { wheels, ball } = rider;
  const found = model?.facts.rig;
  const count = found ? found.wheels.length : 0;
  const take = () => model && edit('Wheels', takeRig(rider.id, model.facts));
  const rigged = wheels.length > 0 || ball !== null;
  const may = rider.kind === 'vehicle' || rider.kind === 'prop' || count > 0 || found?.ball;
  if (!rigged && (rider.gait !== null || !may)) return null;
  return (
    <Section aria-label="Wheels">
      <SectionTitle>{ball ? 'Ball' : wheels.length === 1 ? 'Rolling part' : 'Wheels'}</SectionTitle>
      {!rigged && (
        <Hint>
          {model === null
            ? 'No model to find wheels in.'
            : found?.ball
              ? `${model.name} is a ball of ${(2 * found.ball.radius).toFixed(2)} m.`
              : count > 0
                ? `${count} ${count === 1 ? 'part rolls' : 'wheels were found'} in ${model.name}: rings on the stage show where.`
                : `No wheels were found in ${model.name}: none of its parts is round and on the ground. Name one below, if it has any.`}
        </Hint>
      )}
      {model && found && (count > 0 || found.ball) && (
        <Buttons>
          {rigged ? (
            <Button onPress={take}>
              <Ruler aria-hidden /> Measure from model
            </Button>
          ) : (
            <PrimaryButton onPress={take}>Use the found wheels</PrimaryButton>
          )}
        </Buttons>
      )}
      {ball && (
        <QuantityField
          label="Radius"
          kind="length"
          min={0.000001}
          step={0.01}
          value={ball.radius}
          onChange={(radius, gesture) => edit('Ball', changeBall(rider.id, { radius }), gesture)}
        />
      )}
      {wheels.map((wheel) => (
        <WheelRow key={wheel.node} rider={rider} wheel={wheel} model={model} />
      ))}
      {model && <AddWheel rider={rider} model={model} />}
      {wheels.length > 0 && <BodyFold rider={rider} model={model} />}
    </Section>
  );
}

function WheelRow({ rider, wheel, model }: { rider: Rider; wheel: Wheel; model: KeptModel | null }) {
  const edit = useDesk((state) => state.edit);
  const name = wheelPlace(rider, wheel);
  const measured = model?.facts.rig.wheels.find(({ node }) => node === wheel.node);
  const change = (part: Partial<Wheel>, gesture?: string) =>
    edit('Wheel', changeWheel(rider.id, wheel.node, part), gesture);
  return (
    <WheelCard role="group" aria-label={name}>
      <WheelHead>
        <strong>{name}</strong>
        <span title={wheel.node}>{wheel.node}</span>
        <IconButton
          label={`Delete ${name}`}
          onPress={() => edit('Delete wheel', removeWheel(rider.id, wheel.node))}
        >
          <Trash2 aria-hidden />
        </IconButton>
      </WheelHead>
      <WheelLine>
        <QuantityField
          label="Radius"
          kind="length"
          min={0.000001}
          step={0.01}
          value={wheel.radius}
          onChange={(radius, gesture) => change({ radius }, gesture)}
        />
        <IconButton
          label={`Measure ${name} from model`}
          isDisabled={measured === undefined || model === null}
          onPress={() => model && edit('Wheel', measureWheel(rider.id, wheel.node, model.facts))}
        >
          <Ruler aria-hidden />
        </IconButton>
        {(rider.wheels.length > 1 || wheel.steers) && (
          <Tick isSelected={wheel.steers} onChange={(steers) => change({ steers })}>
            Steers
          </Tick>
        )}
      </WheelLine>
    </WheelCard>
  );
}

const CHOOSE = ' choose';

function AddWheel({ rider, model }: { rider: Rider; model: KeptModel }) {
  const edit = useDesk((state) => state.edit);
  const taken = new Set(rider.wheels.map(({ node }) => node));
  const free = [...new Set(model.facts.nodes)].filter((name) => name !== '' && !taken.has(name));
  if (free.length === 0 || rider.ball) return null;
  return (
    <Fold title="Another wheel">
      <Select
        label="Part"
        options={[{ id: CHOOSE, name: 'Choose a part' }, ...free.map((name) => ({ id: name, name }))]}
        value={CHOOSE}
        onChange={(node) => node !== CHOOSE && edit('Wheel', addWheel(rider.id, node, model.facts))}
      />
    </Fold>
  );
}
