import { AXES, HangingPart, defaultsOf, type Axis, type Rider } from '@fleet-rail/core';
import { Plus, Trash2 } from 'lucide-react';
import type { KeptModel } from '../../api/models';
import { changeRider } from '../../edits/rider-edits';
import { Button } from '../../ui/button';
import { Fold } from '../../ui/fold';
import { IconButton } from '../../ui/icon-button';
import { Buttons, FieldGrid, FieldPair, Hint } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { QuantityFields, type NumberOf } from '../../ui/quantity-fields';
import { Select } from '../../ui/select';
import { useDesk } from '../../state/desk-store';
import { WheelCard, WheelHead } from './wheel-rows';

const NUMBERS: readonly NumberOf<HangingPart>[] = [
  { of: 'mass', label: 'Mass', kind: 'count', unit: 'kg', min: 0.001, max: 1e7, step: 1 },
  { of: 'stiffness', label: 'Stiffness', kind: 'count', unit: 'Nm', min: 0, max: 1e7, step: 5 },
  { of: 'damping', label: 'Damping', kind: 'count', unit: '/s', min: 0, max: 1e3, step: 0.1 },
];
const LENGTHS = ['Mass to the left', 'Mass up', 'Mass ahead'] as const;

/** Names of parts that usually hang. */
const HANGS = /lantern|pendant|load|hook|bell|rope|chain|sign(?!al)|swing/i;

/** Parts of a model that hang on it and swing as it goes: a lamp, a load, a trailer on a rope. */
export function HangingFold({ rider, model }: { rider: Rider; model: KeptModel | null }) {
  const edit = useDesk((state) => state.edit);
  const { hangingParts } = rider;
  const nodes = [...new Set(model?.facts.nodes ?? [])].filter((name) => name !== '');
  const free = nodes.filter((name) => hangingParts.every(({ node }) => node !== name));
  const change = (next: HangingPart[], gesture?: string) =>
    edit(
      'Hanging parts',
      changeRider(rider.id, (before) => ({ ...before, hangingParts: next })),
      gesture,
    );
  const put = (i: number, part: Partial<HangingPart>, gesture?: string) =>
    change(
      hangingParts.map((one, k) => (k === i ? { ...one, ...part } : one)),
      gesture,
    );
  return (
    <Fold
      title={hangingParts.length === 0 ? 'Hanging parts' : `Hanging parts (${hangingParts.length})`}
      isOpen={hangingParts.length > 0}
    >
      <Hint>Parts that swing with the motion: a lamp, a load on a rope.</Hint>
      {hangingParts.map((part, i) => (
        <WheelCard key={part.node} role="group" aria-label={`Hanging ${part.node}`}>
          <WheelHead>
            <strong>{part.node}</strong>
            <span />
            <IconButton
              label={`Delete hanging ${part.node}`}
              onPress={() => change(hangingParts.filter((_, k) => k !== i))}
            >
              <Trash2 aria-hidden />
            </IconButton>
          </WheelHead>
          <FieldPair>
            <Select
              label="Joint"
              options={[
                { id: 'ball', name: 'Ball joint' },
                { id: 'hinge', name: 'Hinge' },
              ]}
              value={part.joint}
              onChange={(joint) => put(i, { joint })}
            />
            {part.joint === 'hinge' && (
              <Select<Axis>
                label="Axis"
                options={AXES.map((axis) => ({ id: axis, name: axis }))}
                value={part.axis}
                onChange={(axis) => put(i, { axis })}
              />
            )}
          </FieldPair>
          <FieldGrid>
            {LENGTHS.map((label, k) => (
              <QuantityField
                key={label}
                label={label}
                kind="length"
                step={0.05}
                value={part.middle[k]}
                onChange={(value, gesture) =>
                  put(
                    i,
                    { middle: part.middle.map((old, n) => (n === k ? value : old)) as HangingPart['middle'] },
                    gesture,
                  )
                }
              />
            ))}
            <QuantityFields
              fields={NUMBERS}
              value={part}
              onChange={(next, gesture) => put(i, next, gesture)}
            />
          </FieldGrid>
        </WheelCard>
      ))}
      <Buttons>
        <Button
          isDisabled={free.length === 0}
          onPress={() => {
            const node = free.find((name) => HANGS.test(name)) ?? free[free.length - 1];
            change([...hangingParts, { ...defaultsOf(HangingPart), node }]);
          }}
        >
          <Plus aria-hidden /> Add a hanging part
        </Button>
      </Buttons>
      {hangingParts.length > 0 && free.length > 0 && (
        <Select
          label="Another part"
          options={[{ id: ' ', name: 'Choose a part' }, ...free.map((name) => ({ id: name, name }))]}
          value=" "
          onChange={(node) => node !== ' ' && change([...hangingParts, { ...defaultsOf(HangingPart), node }])}
        />
      )}
    </Fold>
  );
}
