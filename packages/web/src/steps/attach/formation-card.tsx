import {
  evenSpacing,
  formUp,
  isMoving,
  reform,
  seamRateOf,
  type Formation,
  type Rider,
  type Shot,
  type ShotFormation,
  type Vec3,
} from '@fleet-rail/core';
import { useCallback, useMemo, useState } from 'react';
import { sceneAssets } from '../../workers/scene-assets/ground-height';
import { Button } from '../../ui/button';
import { Buttons, FieldGrid, Hint } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { Tick } from '../../ui/tick';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { roomFor } from '../../commands/attach-previews';
import { CopiesCard } from './copies-card';

const ARRANGED: readonly { id: Formation['arrangement']; name: string }[] = [
  { id: 'file', name: 'One behind another' },
  { id: 'abreast', name: 'Side by side' },
  { id: 'wedge', name: 'In a wedge' },
  { id: 'later', name: 'Delayed' },
  { id: 'moved', name: 'Ride moved and turned' },
];

/** First values of a formation; its spacing follows from the length of the leader. */
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

/** A formation that is set up: a new one, or one of the shot's that was opened again. */
interface Open {
  readonly id: string | null;
  readonly formation: Formation;
}

const opened = ({
  id,
  members,
  arrangement,
  spacing,
  delay,
  step,
  turn,
  seed,
  vary,
}: ShotFormation): Open => ({
  id,
  formation: { count: members.length, arrangement, spacing, delay, step, turn, seed, vary },
});

/** Copies of a rider that share its motion, each varied by a seed; formed once, they can be placed anew. */
export function FormationCard({ leader }: { leader: Rider }) {
  const desk = useDeskStore();
  const shot = useDesk((state) => state.shot);
  const set = useDesk((state) => state.set);
  const [open, setOpen] = useState<Open | null>(null);
  const make = useCallback(
    (before: Shot) => {
      const assets = sceneAssets(desk.getState());
      if (open === null) return { shot: before, ids: [] };
      return open.id === null
        ? formUp(before, assets, leader.id, open.formation)
        : reform(before, assets, open.id, open.formation);
    },
    [desk, leader.id, open],
  );
  if (open === null) {
    const led = shot.formations.find(({ members }) => members.includes(leader.id));
    const head = led && shot.riders.find(({ id }) => id === led.leader);
    return (
      <>
        {head && (
          <>
            <Hint>
              {leader.badge} is number {led.members.indexOf(leader.id) + 1} behind {head.badge}. Its own
              changes stay.
            </Hint>
            <Buttons>
              <Button onPress={() => set({ riderId: head.id })}>Go to {head.badge}</Button>
            </Buttons>
          </>
        )}
        <Hint>Copies that follow {leader.badge} and its later changes.</Hint>
        <Buttons>
          {shot.formations
            .filter((one) => one.leader === leader.id)
            .map((one) => (
              <Button key={one.id} onPress={() => setOpen(opened(one))}>
                Change the formation of {one.members.length}
              </Button>
            ))}
          <Button
            isDisabled={!isMoving(shot, leader)}
            onPress={() =>
              setOpen({
                id: null,
                formation: { ...START, spacing: roomFor(sceneAssets(desk.getState()), [leader]) },
              })
            }
          >
            Form up copies of {leader.badge}
          </Button>
        </Buttons>
      </>
    );
  }
  const { id, formation } = open;
  const setFormation = (next: Formation) => setOpen({ id, formation: next });
  const left =
    shot.formations.find((one) => one.id === id)?.members.filter((member) => member === null).length ?? 0;
  const change = (part: Partial<Formation>) => setFormation({ ...formation, ...part });
  const vary = (part: Partial<Formation['vary']>) => change({ vary: { ...formation.vary, ...part } });
  const moved = (k: number, value: number) =>
    change({ step: formation.step.map((before, i) => (i === k ? value : before)) as Vec3 });
  const { arrangement } = formation;
  const evenly = arrangement === 'file' ? evenSpacing(shot, leader, formation.count) : null;
  const isEven = evenly !== null && Math.abs(formation.spacing - evenly) < 1e-9 * evenly;
  const spacedFor = (count: number) =>
    isEven ? (evenSpacing(shot, leader, count) ?? formation.spacing) : formation.spacing;
  return (
    <CopiesCard
      label={id === null ? `Form up ${leader.badge}` : `Change the formation of ${leader.badge}`}
      action={
        id === null
          ? `Add ${formation.count} ${formation.count === 1 ? 'copy' : 'copies'}`
          : 'Apply to the formation'
      }
      make={make}
      onDone={() => setOpen(null)}
    >
      <Select
        label="Arrangement"
        options={ARRANGED.filter((one) => one.id !== 'moved' || leader.attachment !== null)}
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
          onChange={(count) => change({ count, spacing: spacedFor(count) })}
        />
        {arrangement === 'later' && (
          <QuantityField
            label="Delay"
            kind="frame"
            value={formation.delay}
            onChange={(delay) => change({ delay })}
          />
        )}
        {arrangement !== 'later' && arrangement !== 'moved' && (
          <QuantityField
            label="Spacing"
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
      {evenly !== null && (
        <Tick
          isSelected={isEven}
          onChange={(even) =>
            change({ spacing: even ? evenly : roomFor(sceneAssets(desk.getState()), [leader]) })
          }
        >
          Evenly round the path
        </Tick>
      )}
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
      {left > 0 && (
        <Hint>
          {left} of them {left === 1 ? 'was' : 'were'} deleted for good.
        </Hint>
      )}
      <Hint>Random variation of each copy, up to:</Hint>
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
      {formation.vary.speed > 0 && leader.attachment && <SeamHint leader={leader} />}
    </CopiesCard>
  );
}

/** Limits of varied speeds in a loop. */
function SeamHint({ leader }: { leader: Rider }) {
  const desk = useDeskStore();
  const shot = useDesk((state) => state.shot);
  const rate = useMemo(() => seamRateOf(shot, sceneAssets(desk.getState()), leader), [shot, desk, leader]);
  if (rate === null) return null;
  return (
    <Hint role="status">
      {'laps' in rate
        ? `In a loop each makes whole laps: about ${rate.laps}.`
        : `In a loop all go as fast as ${leader.badge}; at any other speed the loop would not close: ${rate.why}.`}
    </Hint>
  );
}
