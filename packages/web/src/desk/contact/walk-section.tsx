import {
  Act,
  defaultsOf,
  naturalStops,
  type Foot,
  type FoundGait,
  type Gait,
  type Rider,
} from '@fleet-rail/core';
import { Footprints, Plus, Ruler, Trash2 } from 'lucide-react';
import type { KeptModel } from '../../api/models';
import { borrowClips, changeGait, takeGait } from '../../edits/contact-edits';
import { changeRider } from '../../edits/rider-edits';
import { sceneAssets } from '../../scene-assets/ground-height';
import { Button, PrimaryButton } from '../../ui/button';
import { Fold } from '../../ui/fold';
import { IconButton } from '../../ui/icon-button';
import { Buttons, FieldGrid, FieldPair, Hint, Section, SectionTitle } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { Select } from '../../ui/select';
import { Tick } from '../../ui/tick';
import { attempt } from '../attempt';
import { useDesk, useDeskStore } from '../desk-store';
import { useGaits } from './use-gaits';
import { WheelCard, WheelHead, WheelLine } from './wheel-rows';

const NONE = ' none';

/** The walk of the selected rider: its clip goes by the distance it travels. */
export function WalkSection({ rider, model }: { rider: Rider; model: KeptModel | null }) {
  const desk = useDeskStore();
  const edit = useDesk((state) => state.edit);
  const { gait } = rider;
  const gaits = useGaits(rider, model);
  if (gait === null && gaits.length === 0 && rider.kind !== 'character') return null;
  const named = gaits.map(({ clip }) => ({ id: clip, name: clip }));
  const own =
    gait && !gaits.some(({ clip }) => clip === gait.clip) ? [{ id: gait.clip, name: gait.clip }] : [];
  const found = gaits.find(({ clip }) => clip === gait?.clip);
  const walks = gaits.find(({ stride }) => stride > 0);
  const change = (part: Partial<Gait>, gesture?: string) => edit('Walk', changeGait(rider.id, part), gesture);
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
      {gait === null && !walks && gaits.length > 0 && (
        <Hint>
          In none of its clips a foot goes evenly back while it is low, so none was taken for a walk.
        </Hint>
      )}
      {gait !== null && (
        <>
          {gait.feet.length === 0 && (
            <Hint>
              {found && found.stride === 0
                ? `No feet were found in “${gait.clip}”: no part of it goes evenly back while it is low. Name them below, or set the stride by hand.`
                : 'No feet are known: sliding is neither measured nor prevented.'}
            </Hint>
          )}
          <WheelLine>
            <QuantityField
              label="Stride"
              kind="length"
              min={0.000001}
              step={0.01}
              digits={4}
              value={gait.stride}
              onChange={(stride, gesture) => change({ stride }, gesture)}
            />
            <IconButton
              label="Measure stride and feet from model"
              isDisabled={!found || found.stride === 0}
              onPress={() => take(gait.clip)}
            >
              <Ruler aria-hidden />
            </IconButton>
            <QuantityField
              label="Begins at"
              kind="count"
              step={0.05}
              value={gait.phase}
              onChange={(phase, gesture) => change({ phase }, gesture)}
            />
          </WheelLine>
          <Tick
            isSelected={gait.plant}
            isDisabled={gait.feet.length === 0}
            onChange={(plant) => change({ plant })}
          >
            Lock feet to the ground
          </Tick>
          <FieldPair>
            <Select
              label="While stopped"
              options={[{ id: NONE, name: 'Hold the last pose' }, ...named]}
              value={gait.idle ?? NONE}
              onChange={(idle) => change({ idle: idle === NONE ? null : idle })}
            />
            <QuantityField
              label="Blend"
              kind="time"
              min={0}
              step={0.05}
              value={gait.blend}
              onChange={(blend, gesture) => change({ blend }, gesture)}
            />
          </FieldPair>
          <FieldPair>
            <Select
              label="Sets off with"
              options={[{ id: NONE, name: 'Automatic' }, ...named]}
              value={gait.startClip ?? NONE}
              onChange={(clip) => change({ startClip: clip === NONE ? null : clip })}
            />
            <Select
              label="Stops with"
              options={[{ id: NONE, name: 'Automatic' }, ...named]}
              value={gait.stopClip ?? NONE}
              onChange={(clip) => change({ stopClip: clip === NONE ? null : clip })}
            />
          </FieldPair>
          <Hint>Automatic: the model’s own clip for it, found by its name, or else a step.</Hint>
          <QuantityField
            label="Warn above"
            kind="count"
            unit="steps/s"
            min={0}
            max={100}
            step={0.1}
            value={gait.cadence}
            onChange={(cadence, gesture) => change({ cadence }, gesture)}
          />
          <Buttons>
            <Button
              isDisabled={gait.feet.length === 0}
              onPress={() =>
                attempt(desk, 'Move stops', (shot) =>
                  naturalStops(shot, sceneAssets(desk.getState()), rider.id),
                )
              }
            >
              Move stops to natural poses
            </Button>
          </Buttons>
          <ActsFold gait={gait} gaits={gaits} change={change} />
          <FeetFold gait={gait} nodes={model?.facts.nodes ?? []} change={change} />
        </>
      )}
    </Section>
  );
}

/** Whose clips are played: the model's own, or those of another model, such as a figure's motion that was uploaded. */
function ClipsFrom({ rider, model }: { rider: Rider; model: KeptModel | null }) {
  const edit = useDesk((state) => state.edit);
  const kept = useDesk((state) => state.models);
  const source = useDesk(
    ({ shot }) => shot.models.find(({ id }) => id === rider.gait?.source)?.source.asset ?? NONE,
  );
  const lenders = kept.filter(({ id, facts }) => id !== model?.id && facts.clips.length > 0);
  if (model === null || lenders.length === 0) return null;
  return (
    <Select
      label="Clips from"
      options={[{ id: NONE, name: 'Its own model' }, ...lenders.map(({ id, name }) => ({ id, name }))]}
      value={source}
      onChange={(id) => {
        if (id !== NONE || rider.gait)
          edit('Clips', borrowClips(rider.id, lenders.find((one) => one.id === id) ?? null));
      }}
    />
  );
}

type Change = (part: Partial<Gait>, gesture?: string) => void;

/** What it does at its stops. */
function ActsFold({ gait, gaits, change }: { gait: Gait; gaits: readonly FoundGait[]; change: Change }) {
  const { acts } = gait;
  const put = (i: number, part: Partial<Act>, gesture?: string) =>
    change({ acts: acts.map((act, k) => (k === i ? { ...act, ...part } : act)) }, gesture);
  return (
    <Fold
      title={acts.length === 0 ? 'Acts at its stops' : `Acts at its stops (${acts.length})`}
      isOpen={acts.length > 0}
    >
      {acts.map((act, i) => {
        const clip = gaits.find((one) => one.clip === act.clip);
        const end = act.to ?? clip?.seconds ?? act.from + 1;
        return (
          <WheelCard key={i} role="group" aria-label={`Act at stop ${act.stop + 1}`}>
            <WheelHead>
              <strong>Stop {act.stop + 1}</strong>
              <span />
              <IconButton
                label={`Delete the act at stop ${act.stop + 1}`}
                onPress={() => change({ acts: acts.filter((_, k) => k !== i) })}
              >
                <Trash2 aria-hidden />
              </IconButton>
            </WheelHead>
            <FieldPair>
              <QuantityField
                label="At stop"
                kind="count"
                whole
                min={1}
                max={10_000}
                value={act.stop + 1}
                onChange={(stop, gesture) => put(i, { stop: stop - 1 }, gesture)}
              />
              <Select
                label="Does"
                options={gaits.map((one) => ({ id: one.clip, name: one.clip }))}
                value={act.clip}
                onChange={(name) => put(i, { clip: name, from: 0, to: null })}
              />
            </FieldPair>
            <FieldGrid>
              <QuantityField
                label="From"
                kind="time"
                min={0}
                max={Math.max(0, end - 0.01)}
                step={0.1}
                value={act.from}
                onChange={(from, gesture) => put(i, { from }, gesture)}
              />
              <QuantityField
                label="To"
                kind="time"
                min={act.from + 0.01}
                step={0.1}
                value={end}
                onChange={(to, gesture) => put(i, { to }, gesture)}
              />
              <Select
                label="Lasts"
                options={[
                  { id: 'stretch', name: 'The stop' },
                  { id: 'repeat', name: 'Repeats' },
                ]}
                value={act.fit}
                onChange={(fit) => put(i, { fit })}
              />
            </FieldGrid>
          </WheelCard>
        );
      })}
      <Buttons>
        <Button
          isDisabled={gaits.length === 0}
          onPress={() => {
            const stop = acts.reduce((most, act) => Math.max(most, act.stop + 1), 0);
            const other = gaits.find((one) => one.clip !== gait.clip && one.clip !== gait.idle) ?? gaits[0];
            change({ acts: [...acts, { ...defaultsOf(Act), stop, clip: other.clip }] });
          }}
        >
          <Plus aria-hidden /> Add an act
        </Button>
      </Buttons>
    </Fold>
  );
}

/** Its feet, and when each is down. */
function FeetFold({ gait, nodes, change }: { gait: Gait; nodes: readonly string[]; change: Change }) {
  const { feet } = gait;
  const free = [...new Set(nodes)].filter((name) => name !== '' && !feet.some(({ node }) => node === name));
  const put = (i: number, foot: Foot, gesture?: string) =>
    change({ feet: feet.map((one, k) => (k === i ? foot : one)) }, gesture);
  return (
    <Fold title={`Feet (${feet.length})`}>
      {feet.map((foot, i) => {
        const [stance] = foot.stances;
        return (
          <WheelCard key={foot.node} role="group" aria-label={foot.node}>
            <WheelHead>
              <strong>{foot.node}</strong>
              <span />
              <IconButton
                label={`Delete ${foot.node}`}
                onPress={() => change({ feet: feet.filter((_, k) => k !== i) })}
              >
                <Trash2 aria-hidden />
              </IconButton>
            </WheelHead>
            {stance && (
              <FieldPair>
                <QuantityField
                  label="Comes down at"
                  kind="count"
                  min={0}
                  max={1}
                  step={0.01}
                  value={stance.from}
                  onChange={(from, gesture) =>
                    put(
                      i,
                      {
                        ...foot,
                        stances: [
                          { from, to: Math.min(from + 1, Math.max(from + 0.01, stance.to)) },
                          ...foot.stances.slice(1),
                        ],
                      },
                      gesture,
                    )
                  }
                />
                <QuantityField
                  label="Lifts at"
                  kind="count"
                  min={stance.from + 0.01}
                  max={stance.from + 1}
                  step={0.01}
                  value={stance.to}
                  onChange={(to, gesture) =>
                    put(i, { ...foot, stances: [{ ...stance, to }, ...foot.stances.slice(1)] }, gesture)
                  }
                />
              </FieldPair>
            )}
          </WheelCard>
        );
      })}
      {free.length > 0 && (
        <Select
          label="Another foot"
          options={[{ id: NONE, name: 'Choose a part' }, ...free.map((name) => ({ id: name, name }))]}
          value={NONE}
          onChange={(node) =>
            node !== NONE && change({ feet: [...feet, { node, stances: [{ from: 0, to: 0.5 }] }] })
          }
        />
      )}
    </Fold>
  );
}
