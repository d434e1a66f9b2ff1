import { AXES, type Axis, type Rider } from '@fleet-rail/core';
import type { KeptModel } from '../../api/models';
import { changeRider } from '../../edits/rider-edits';
import { Fold } from '../../ui/fold';
import { FieldGrid, FieldPair, Hint } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { useDesk } from '../../state/desk-store';

const NONE = ' none';

/** The steering wheel and the body that leans. */
export function BodyFold({ rider, model }: { rider: Rider; model: KeptModel | null }) {
  const edit = useDesk((state) => state.edit);
  const { steering, body } = rider;
  const names = [...new Set([...(model?.facts.nodes ?? []), steering.node ?? '', body.node ?? ''])];
  const parts = [
    { id: NONE, name: 'None' },
    ...names.filter((name) => name !== '').map((name) => ({ id: name, name })),
  ];
  const change = (part: Partial<Pick<Rider, 'steering' | 'body'>>, gesture?: string) =>
    edit(
      'Body',
      changeRider(rider.id, (before) => ({ ...before, ...part })),
      gesture,
    );
  return (
    <Fold title="Steering wheel and body">
      <FieldPair>
        <Select
          label="Steering wheel"
          options={parts}
          value={steering.node ?? NONE}
          onChange={(node) => change({ steering: { ...steering, node: node === NONE ? null : node } })}
        />
        <Select<Axis>
          label="Axis"
          options={AXES.map((axis) => ({ id: axis, name: axis }))}
          value={steering.axis}
          onChange={(axis) => change({ steering: { ...steering, axis } })}
        />
        <QuantityField
          label="Ratio"
          kind="count"
          step={0.5}
          value={steering.ratio}
          onChange={(ratio, gesture) => change({ steering: { ...steering, ratio } }, gesture)}
        />
        <Select
          label="Leaning body"
          options={parts}
          value={body.node ?? NONE}
          onChange={(node) => change({ body: { ...body, node: node === NONE ? null : node } })}
        />
      </FieldPair>
      {body.node !== null && (
        <>
          <FieldGrid>
            <QuantityField
              label="Roll per g"
              kind="angle"
              unit="°/g"
              step={0.5}
              value={body.rollPerG}
              onChange={(rollPerG, gesture) => change({ body: { ...body, rollPerG } }, gesture)}
            />
            <QuantityField
              label="Pitch per g"
              kind="angle"
              unit="°/g"
              step={0.5}
              value={body.pitchPerG}
              onChange={(pitchPerG, gesture) => change({ body: { ...body, pitchPerG } }, gesture)}
            />
            <QuantityField
              label="Settles in (time)"
              kind="time"
              min={0}
              step={0.05}
              value={body.settle}
              onChange={(settle, gesture) => change({ body: { ...body, settle } }, gesture)}
            />
          </FieldGrid>
          <Hint>Leans out of bends and dips when braking. Wheels stay put.</Hint>
        </>
      )}
    </Fold>
  );
}
