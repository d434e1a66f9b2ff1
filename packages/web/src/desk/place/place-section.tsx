import { freeze, keyHere, keysOfRide, thaw, withOwnPath, type Rider, type Shot } from '@fleet-rail/core';
import { Milestone, Route } from 'lucide-react';
import { useState } from 'react';
import { sceneAssets } from '../../scene-assets/ground-height';
import { Button } from '../../ui/button';
import { Buttons, Hint, Section, SectionTitle } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { attempt } from '../attempt';
import { useDesk, useDeskStore } from '../desk-store';
import { EchoFields } from './echo-fields';
import { HandKeysList } from './hand-keys-list';
import { PlaceFields } from './place-fields';

/** What is made of a motion stays this near to it, metres. */
const WITHIN = 0.005;
/** What is frozen plays as near as this where nobody says otherwise, metres. */
const FROZEN_WITHIN = 0.001;

/** Where riders are put: at rest, on what carries them, or over time by hand; frozen, and back. */
export function PlaceSection({ rider, chosen }: { rider: Rider; chosen: readonly string[] }) {
  const desk = useDeskStore();
  const [frozenWithin, setFrozenWithin] = useState(FROZEN_WITHIN);
  const riders = useDesk(({ shot }) => shot.riders);
  const all = riders.filter(
    ({ id }) => id === rider.id || (chosen.includes(rider.id) && chosen.includes(id)),
  );
  const frozen = all.filter((one) => one.frozen !== null);
  const live = all.filter((one) => one.frozen === null);
  const still = rider.hitch === null && rider.frozen === null;
  const free = still && rider.echo === null;
  const edit = (label: string, change: (shot: Shot, assets: ReturnType<typeof sceneAssets>) => Shot) =>
    attempt(desk, label, (now) => change(now, sceneAssets(desk.getState())));
  const names = (list: readonly Rider[]) => list.map(({ badge }) => badge).join(', ');
  const ids = (list: readonly Rider[]) => list.map(({ id }) => id);
  const onOwnPath = () => {
    if (
      edit(
        `A path of its own for ${rider.badge}`,
        (now, assets) => withOwnPath(now, assets, rider.id, WITHIN).shot,
      )
    )
      desk.getState().set({ pathId: desk.getState().shot.paths.at(-1)?.id ?? null, points: new Set() });
  };
  return (
    <Section aria-label="Position">
      <SectionTitle>Position</SectionTitle>
      {free && <PlaceFields rider={rider} />}
      {still && rider.echo && <EchoFields rider={rider} echo={rider.echo} />}
      {free && rider.keyed !== null && <HandKeysList rider={rider} keyed={rider.keyed} />}
      {frozen.length > 0 && (
        <Hint>
          {names(frozen)} {frozen.length > 1 ? 'are' : 'is'} frozen: the baked motion plays, whatever happens
          to the path. Thaw to have the live motion back as it was.
        </Hint>
      )}
      <Buttons>
        {free && (
          <Button
            onPress={() =>
              edit('Key here', (now, assets) => keyHere(now, assets, rider.id, desk.getState().frame))
            }
          >
            <Milestone aria-hidden /> Key here
          </Button>
        )}
        {(!free || rider.parent !== null) && (
          <Button
            onPress={() =>
              edit(`Move ${rider.badge} by hand`, (now, assets) => keysOfRide(now, assets, rider.id, WITHIN))
            }
          >
            <Milestone aria-hidden /> Turn it into hand keys
          </Button>
        )}
        {(!free || rider.keyed !== null || rider.parent !== null) && (
          <Button onPress={onOwnPath}>
            <Route aria-hidden /> Give it a path of its own
          </Button>
        )}
        {live.length > 0 && (
          <Button
            onPress={() =>
              edit(`Freeze ${names(live)}`, (now, assets) => freeze(now, assets, ids(live), frozenWithin))
            }
          >
            Freeze {live.length > 1 && names(live)}
          </Button>
        )}
        {frozen.length > 0 && (
          <Button onPress={() => edit(`Thaw ${names(frozen)}`, (now) => thaw(now, ids(frozen)))}>
            Thaw {frozen.length > 1 && names(frozen)}
          </Button>
        )}
      </Buttons>
      {live.length > 0 && (
        <QuantityField
          label="Freeze within"
          kind="length"
          min={0.000001}
          max={1}
          step={0.0005}
          digits={4}
          value={frozenWithin}
          onChange={setFrozenWithin}
        />
      )}
    </Section>
  );
}
