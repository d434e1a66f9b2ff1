import { formUp, type Formation, type Rider, type Shot, type Vec3 } from '@fleet-rail/core';
import { useCallback, useState } from 'react';
import { sceneAssets } from '../../scene-assets/ground-height';
import { Button } from '../../ui/button';
import { Buttons, FieldGrid, Hint } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { useDeskStore } from '../desk-store';
import { roomFor } from '../attach-previews';
import { CopiesCard } from './copies-card';

const ARRANGED: readonly { id: Formation['arrangement']; name: string }[] = [
  { id: 'file', name: 'One behind another' },
  { id: 'abreast', name: 'Side by side' },
  { id: 'wedge', name: 'In a wedge' },
  { id: 'later', name: 'Each a little later' },
  { id: 'moved', name: 'The whole ride moved and turned' },
];

/** What a formation begins with; how far apart is told by how long its leader is. */
const START: Formation = {
  count: 4,
  arrangement: 'wedge',
  spacing: 0,
  delay: 12,
  step: [3, 0, 0],
  turn: 0,
  seed: 1,
  vary: { place: 0, time: 0, speed: 0, amplitude: 0 },
};

/** Copies of a rider that share its motion, each varied by a seed. */
export function FormationCard({ leader }: { leader: Rider }) {
  const desk = useDeskStore();
  const [formation, setFormation] = useState<Formation | null>(null);
  const make = useCallback(
    (shot: Shot) => formUp(shot, sceneAssets(desk.getState()), leader.id, formation ?? START),
    [desk, leader.id, formation],
  );
  if (formation === null) {
    return (
      <>
        <Hint>Copies that ride as {leader.badge} does, and follow what it is given later.</Hint>
        <Buttons>
          <Button
            isDisabled={leader.hitch === null}
            onPress={() =>
              setFormation({ ...START, spacing: roomFor(sceneAssets(desk.getState()), [leader]) })
            }
          >
            Form up copies of {leader.badge}
          </Button>
        </Buttons>
      </>
    );
  }
  const change = (part: Partial<Formation>) => setFormation({ ...formation, ...part });
  const vary = (part: Partial<Formation['vary']>) => change({ vary: { ...formation.vary, ...part } });
  const moved = (k: number, value: number) =>
    change({ step: formation.step.map((before, i) => (i === k ? value : before)) as Vec3 });
  const { arrangement } = formation;
  return (
    <CopiesCard
      label={`Form up ${leader.badge}`}
      action={`Add ${formation.count} ${formation.count === 1 ? 'copy' : 'copies'}`}
      make={make}
      onDone={() => setFormation(null)}
    >
      <Select
        label="Arranged"
        options={ARRANGED}
        value={arrangement}
        onChange={(next) => change({ arrangement: next })}
      />
      <FieldGrid>
        <QuantityField
          label="Copies"
          kind="count"
          value={formation.count}
          min={1}
          max={500}
          whole
          onChange={(count) => change({ count })}
        />
        {arrangement === 'later' && (
          <QuantityField
            label="Later by"
            kind="frame"
            value={formation.delay}
            onChange={(delay) => change({ delay })}
          />
        )}
        {arrangement !== 'later' && arrangement !== 'moved' && (
          <QuantityField
            label="Apart"
            kind="length"
            value={formation.spacing}
            step={0.1}
            onChange={(spacing) => change({ spacing })}
          />
        )}
        <QuantityField
          label="Seed"
          kind="count"
          value={formation.seed}
          min={0}
          max={2 ** 31 - 1}
          whole
          onChange={(seed) => change({ seed })}
        />
      </FieldGrid>
      {arrangement === 'moved' && (
        <FieldGrid>
          {(['X', 'Y', 'Z'] as const).map((axis, k) => (
            <QuantityField
              key={axis}
              label={`Step ${axis}`}
              kind="length"
              value={formation.step[k]}
              step={0.1}
              onChange={(value) => moved(k, value)}
            />
          ))}
          <QuantityField
            label="Turn each"
            kind="angle"
            value={formation.turn}
            onChange={(turn) => change({ turn })}
          />
        </FieldGrid>
      )}
      <Hint>Each copy varies at random, by up to:</Hint>
      <FieldGrid>
        <QuantityField
          label="Distance"
          kind="length"
          value={formation.vary.place}
          min={0}
          step={0.1}
          onChange={(place) => vary({ place })}
        />
        <QuantityField
          label="Time"
          kind="frame"
          value={formation.vary.time}
          min={0}
          onChange={(time) => vary({ time })}
        />
        <QuantityField
          label="Speed"
          kind="count"
          unit="%"
          value={formation.vary.speed * 100}
          min={0}
          max={90}
          onChange={(speed) => vary({ speed: speed / 100 })}
        />
        <QuantityField
          label="Amplitude"
          kind="count"
          unit="%"
          value={formation.vary.amplitude * 100}
          min={0}
          max={90}
          onChange={(amplitude) => vary({ amplitude: amplitude / 100 })}
        />
      </FieldGrid>
    </CopiesCard>
  );
}
