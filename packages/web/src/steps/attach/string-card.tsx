import {
  chassisOf,
  couplingLength,
  changeString,
  commonGap,
  hangString,
  hierarchyOfRider,
  unitsBehind,
  type Chassis,
  type Rider,
  type Shot,
} from '@fleet-rail/core';
import { useCallback, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { foundAxes } from '../../edits/rider-edits';
import { sceneAssets } from '../../workers/scene-assets/ground-height';
import { Button } from '../../ui/button';
import { Buttons, FieldGrid, Hint } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { CopiesCard } from './copies-card';

/** Hangs another rider, and copies of it, behind this one. */
export function StringCard({ leader }: { leader: Rider }) {
  const riders = useDesk((state) => state.shot.riders);
  const models = useDesk((state) => state.models);
  const others = riders.filter(({ id }) => id !== leader.id);
  const assets = sceneAssets(
    useDesk(useShallow(({ ground, hierarchies, physics }) => ({ ground, hierarchies, physics }))),
  );
  const [unit, setUnit] = useState<string | null>(null);
  const [count, setCount] = useState(1);
  const [gap, setGap] = useState(0.1);
  const [setting, setSetting] = useState(false);
  const [changing, setChanging] = useState(false);
  const chosen =
    others.find(({ id }) => id === unit) ?? others.find(({ attachment }) => attachment === null) ?? others[0];
  const unitId = chosen?.id ?? '';
  const make = useCallback(
    (shot: Parameters<typeof hangString>[0]) =>
      hangString(shot, leader.id, { unit: unitId, count, gap }, foundAxes(shot, models).get(unitId)),
    [leader.id, unitId, count, gap, models],
  );
  if (chosen === undefined) return <Hint>Add a rider to hang behind {leader.badge} first.</Hint>;
  const units = unitsBehind(riders, leader);
  const end = units.at(-1) ?? leader;
  if (changing && units.length > 0)
    return <ChangeString leader={leader} units={units} onDone={() => setChanging(false)} />;
  if (!setting) {
    return (
      <>
        <Hint>
          {end === leader
            ? `Nothing hangs behind ${leader.badge} yet.`
            : `Behind ${leader.badge} hangs a string that ends with ${end.badge}.`}
        </Hint>
        <Buttons>
          {units.length > 0 && (
            <Button onPress={() => setChanging(true)}>Change the string of {units.length}</Button>
          )}
          <Button onPress={() => setSetting(true)}>Hang a string behind {leader.badge}</Button>
        </Buttons>
      </>
    );
  }
  return (
    <CopiesCard
      label={`Hang behind ${leader.badge}`}
      action="Hang it"
      make={make}
      onDone={() => setSetting(false)}
    >
      <Select
        label="Unit"
        options={others.map(({ id, badge, name }) => ({ id, name: `${badge} ${name}` }))}
        value={chosen.id}
        onChange={setUnit}
      />
      <FieldGrid>
        <QuantityField label="Units" kind="count" value={count} min={1} max={200} whole onChange={setCount} />
        <QuantityField label="Gap" kind="length" value={gap} min={0} step={0.05} onChange={setGap} />
      </FieldGrid>
      <Hint>{lengthText(chosen, chassisOf(chosen, hierarchyOfRider(assets, chosen)?.box ?? null))}</Hint>
    </CopiesCard>
  );
}

/** The string behind a rider, longer, shorter or spaced anew. */
function ChangeString(props: { leader: Rider; units: readonly Rider[]; onDone: () => void }) {
  const { leader, units } = props;
  const desk = useDeskStore();
  const [count, setCount] = useState(units.length);
  const [gap, setGap] = useState(commonGap(units));
  const make = useCallback(
    (shot: Shot) => changeString(shot, sceneAssets(desk.getState()), leader.id, { count, gap }),
    [desk, leader.id, count, gap],
  );
  return (
    <CopiesCard
      label={`Change the string of ${leader.badge}`}
      action="Apply to the string"
      make={make}
      onDone={props.onDone}
    >
      <FieldGrid>
        <QuantityField label="Units" kind="count" value={count} min={1} max={200} whole onChange={setCount} />
        <QuantityField label="Gap" kind="length" value={gap} min={0} step={0.05} onChange={setGap} />
      </FieldGrid>
      <Hint>New units are copies of the last one. Gaps set one by one stay.</Hint>
    </CopiesCard>
  );
}

function lengthText({ badge }: Rider, chassis: Chassis | null): string {
  if (chassis === null) return `${badge} has no axles: it is a point on the path.`;
  const wheelbase = (chassis.frontAxle - chassis.rearAxle).toFixed(2);
  const length = couplingLength(chassis).toFixed(2);
  return `${badge}: wheelbase ${wheelbase} m, ${length} m from coupling to coupling.`;
}
