import { thaw, type Rider } from '@fleet-rail/core';
import { Milestone, Route } from 'lucide-react';
import { useState } from 'react';
import { Button } from '../../../ui/button';
import { Buttons, Hint, Section, SectionTitle } from '../../../ui/panel';
import { QuantityField } from '../../../ui/quantity-field';
import { attempt, attemptAsked } from '../../../commands/attempt';
import { useDesk, useDeskStore } from '../../../state/desk-store';
import { FollowFields } from './follow-fields';
import { HandKeysList } from './hand-keys-list';
import { PlaceFields } from './place-fields';

/** Tolerance of paths and keys made from a motion, metres. */
const WITHIN = 0.005;
/** Default tolerance of frozen motion, metres. */
const FROZEN_WITHIN = 0.001;

/** Placement of riders: at rest, on a carrier, or over time by hand; freeze and thaw. */
export function PlaceSection({ rider, chosen }: { rider: Rider; chosen: readonly string[] }) {
  const desk = useDeskStore();
  const [frozenWithin, setFrozenWithin] = useState(FROZEN_WITHIN);
  const riders = useDesk(({ shot }) => shot.riders);
  const all = riders.filter(
    ({ id }) => id === rider.id || (chosen.includes(rider.id) && chosen.includes(id)),
  );
  const frozen = all.filter((one) => one.frozen !== null);
  const live = all.filter((one) => one.frozen === null);
  const still = rider.attachment === null && rider.frozen === null;
  const free = still && rider.follow === null;
  const names = (list: readonly Rider[]) => list.map(({ badge }) => badge).join(', ');
  const ids = (list: readonly Rider[]) => list.map(({ id }) => id);
  const onOwnPath = async () => {
    const done = await attemptAsked(
      desk,
      `A path of its own for ${rider.badge}`,
      'ownPath',
      rider.id,
      WITHIN,
    );
    if (done) desk.getState().set({ pathId: done.pathId, points: new Set() });
  };
  return (
    <Section aria-label="Position">
      <SectionTitle>Position</SectionTitle>
      {free && <PlaceFields rider={rider} />}
      {still && rider.follow && <FollowFields rider={rider} echo={rider.follow} />}
      {free && rider.transformKeys !== null && <HandKeysList rider={rider} keyed={rider.transformKeys} />}
      {frozen.length > 0 && (
        <Hint>
          {names(frozen)} {frozen.length > 1 ? 'are' : 'is'} frozen: the baked motion plays. Thaw to restore
          the live motion.
        </Hint>
      )}
      <Buttons>
        {free && (
          <Button
            onPress={() => void attemptAsked(desk, 'Key here', 'keyHere', rider.id, desk.getState().frame)}
          >
            <Milestone aria-hidden /> Key here
          </Button>
        )}
        {(!free || rider.parent !== null) && (
          <Button
            onPress={() =>
              void attemptAsked(desk, `Move ${rider.badge} by hand`, 'keysOfRide', rider.id, WITHIN)
            }
          >
            <Milestone aria-hidden /> Turn it into hand keys
          </Button>
        )}
        {(!free || rider.transformKeys !== null || rider.parent !== null) && (
          <Button onPress={() => void onOwnPath()}>
            <Route aria-hidden /> Give it a path of its own
          </Button>
        )}
        {live.length > 0 && (
          <Button
            onPress={() =>
              void attemptAsked(desk, `Freeze ${names(live)}`, 'freeze', ids(live), frozenWithin)
            }
          >
            Freeze {live.length > 1 && names(live)}
          </Button>
        )}
        {frozen.length > 0 && (
          <Button onPress={() => attempt(desk, `Thaw ${names(frozen)}`, (now) => thaw(now, ids(frozen)))}>
            Thaw {frozen.length > 1 && names(frozen)}
          </Button>
        )}
      </Buttons>
      {live.length > 0 && (
        <QuantityField
          label="Tolerance"
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
