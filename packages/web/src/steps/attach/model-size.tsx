import { MODEL_UNITS, type Rider } from '@fleet-rail/core';
import { useState } from 'react';
import { usePlaceModel, type KeptModel } from '../../api/models';
import { sentenceOf } from '../../api/request';
import { takeGait, takeRig } from '../../edits/contact-edits';
import { replaceModel } from '../../edits/rider-edits';
import { Button } from '../../ui/button';
import { notify } from '../../ui/notices';
import { Buttons, FieldGrid, Hint } from '../../ui/panel';
import { showNumber } from '../../ui/quantity';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { useDesk } from '../../state/desk-store';

type Placing = KeptModel['facts']['placing'];

const SIDES = ['To the left', 'Up', 'Ahead'] as const;

/** Size of a rider's model, its unit, and its placement within the rider. */
export function ModelSize({ rider, model }: { rider: Rider; model: KeptModel }) {
  const edit = useDesk((state) => state.edit);
  const place = usePlaceModel();
  const { low, high, unit, placing } = model.facts;
  const [own, setOwn] = useState<Placing>(placing);
  const put = (to: Placing, name: string) =>
    place.mutateAsync({ id: model.id, placing: to }).then(
      (placed) =>
        edit(name, (shot) => {
          const worn = replaceModel(rider.id, placed, model)(shot);
          // Measures taken in it before have another size now.
          const rolling = rider.wheels.length > 0 ? takeRig(rider.id, placed.facts)(worn) : worn;
          return rider.gait ? takeGait(rider.id, rider.gait.clip, placed.facts.gaits)(rolling) : rolling;
        }),
      (error: unknown) => notify('error', sentenceOf(error)),
    );
  const made = MODEL_UNITS.find(({ metres }) => Math.abs(metres / placing.scale - 1) < 1e-9);
  const likely = MODEL_UNITS.find(({ id }) => id === unit);
  const size = [0, 1, 2].map((k) => high[k] - low[k]);
  const inUnit = (metres: number) => size.map((side) => showNumber(side * metres, 2)).join(' × ');
  const isPlaced = JSON.stringify(own) !== JSON.stringify(placing);
  return (
    <>
      <Hint>{inUnit(1)} m: wide, high, long.</Hint>
      {likely && likely.id !== 'm' && (
        <>
          <Hint role="alert">
            Unusual size. In {likely.name} it would be {inUnit(likely.metres)} m.
          </Hint>
          <Buttons>
            <Button
              isPending={place.isPending}
              onPress={() =>
                void put({ ...placing, scale: placing.scale * likely.metres }, `Use ${likely.name}`)
              }
            >
              Use {likely.name}
            </Button>
          </Buttons>
        </>
      )}
      <Select
        label="Model unit"
        options={[
          ...MODEL_UNITS.map(({ id, name, metres }) => ({
            id,
            name: `${name}: ${inUnit(metres / placing.scale)} m`,
          })),
          ...(made ? [] : [{ id: 'own', name: `${showNumber(placing.scale, 6)} m` }]),
        ]}
        value={made?.id ?? 'own'}
        onChange={(id) => {
          const wanted = MODEL_UNITS.find((one) => one.id === id);
          if (wanted && wanted !== made) void put({ ...placing, scale: wanted.metres }, `Use ${wanted.name}`);
        }}
      />
      <FieldGrid>
        {SIDES.map((label, k) => (
          <QuantityField
            key={label}
            label={label}
            kind="length"
            min={-1e3}
            max={1e3}
            value={own.translation[k]}
            onChange={(value) =>
              setOwn({
                ...own,
                translation: own.translation.map((one, i) =>
                  i === k ? value : one,
                ) as Placing['translation'],
              })
            }
          />
        ))}
        <QuantityField
          label="Turned left"
          kind="angle"
          min={-360}
          max={360}
          value={yawOf(own.rotation)}
          onChange={(degrees) => setOwn({ ...own, rotation: turned(degrees) })}
        />
      </FieldGrid>
      <Buttons>
        <Button
          isDisabled={!isPlaced}
          isPending={place.isPending}
          onPress={() => void put(own, 'Model placement')}
        >
          Apply placement
        </Button>
      </Buttons>
    </>
  );
}

/** Rotations about up, the only ones that these fields set. */
const yawOf = ([, y, , w]: Placing['rotation']): number => (2 * Math.atan2(y, w) * 180) / Math.PI;

function turned(degrees: number): Placing['rotation'] {
  const half = (degrees * Math.PI) / 360;
  return [0, Math.sin(half), 0, Math.cos(half)];
}
