import { standCopies, type Copies, type Rider, type Shot, type Vec3 } from '@fleet-rail/core';
import { useCallback, useState } from 'react';
import { sceneAssets } from '../../workers/scene-assets/ground-height';
import { Button } from '../../ui/button';
import { Buttons, FieldGrid, Hint } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { Tick } from '../../ui/tick';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { CopiesCard } from './copies-card';

const PLACES: readonly { id: Copies['places']; name: string }[] = [
  { id: 'row', name: 'In a row' },
  { id: 'around', name: 'In a ring' },
  { id: 'along', name: 'Along a path' },
  { id: 'area', name: 'Over an area' },
];
const START: Copies = {
  count: 1,
  places: 'row',
  step: [2, 0, 0],
  radius: 5,
  path: null,
  side: 0,
  seed: 1,
  onGround: false,
};

/** Copies of a rider at rest: in a row, a ring, along a path, or over an area by a seed; with a preview. */
export function StandCopiesCard({ rider }: { rider: Rider }) {
  const desk = useDeskStore();
  const paths = useDesk(({ shot }) => shot.paths);
  const [copies, setCopies] = useState<Copies | null>(null);
  const make = useCallback(
    (shot: Shot) => standCopies(shot, sceneAssets(desk.getState()).ground, rider.id, copies ?? START),
    [desk, rider.id, copies],
  );
  if (copies === null)
    return (
      <>
        <Hint>Copies of {rider.badge} at rest, or moved by hand as it is.</Hint>
        <Buttons>
          <Button
            onPress={() =>
              setCopies({
                ...START,
                path: paths[0]?.id ?? null,
                onGround: desk.getState().drawing.toGround,
              })
            }
          >
            Copy {rider.badge}
          </Button>
        </Buttons>
      </>
    );
  const change = (part: Partial<Copies>) => setCopies({ ...copies, ...part });
  const { places } = copies;
  const metres = (of: 'radius' | 'side', label: string) => (
    <QuantityField
      label={label}
      kind="length"
      value={copies[of]}
      step={0.5}
      min={of === 'radius' ? 0 : undefined}
      onChange={(value) => change({ [of]: value })}
    />
  );
  return (
    <CopiesCard
      label={`Copy ${rider.badge}`}
      action={`Add ${copies.count} ${copies.count === 1 ? 'copy' : 'copies'}`}
      make={make}
      onDone={() => setCopies(null)}
    >
      <Select
        label="Arrangement"
        options={PLACES}
        value={places}
        onChange={(next) => change({ places: next })}
      />
      {places === 'along' && (
        <Select
          label="Along"
          options={paths.map(({ id, name }) => ({ id, name }))}
          value={copies.path ?? ''}
          onChange={(path) => change({ path })}
        />
      )}
      <FieldGrid>
        <QuantityField
          label="Copies"
          kind="count"
          value={copies.count}
          min={1}
          max={900}
          whole
          onChange={(count) => change({ count })}
        />
        {(places === 'around' || places === 'area') && metres('radius', 'Radius')}
        {places === 'along' && metres('side', 'To its left')}
        {places === 'area' && (
          <QuantityField
            label="Seed"
            kind="count"
            value={copies.seed}
            min={0}
            max={2 ** 31 - 1}
            whole
            onChange={(seed) => change({ seed })}
          />
        )}
        {places === 'row' &&
          (['X', 'Y', 'Z'] as const).map((axis, k) => (
            <QuantityField
              key={axis}
              label={`Step ${axis}`}
              kind="length"
              value={copies.step[k]}
              step={0.5}
              onChange={(value) =>
                change({ step: copies.step.map((old, n) => (n === k ? value : old)) as Vec3 })
              }
            />
          ))}
      </FieldGrid>
      <Tick isSelected={copies.onGround} onChange={(onGround) => change({ onGround })}>
        Place each on the ground
      </Tick>
    </CopiesCard>
  );
}
