import { RestAim, defaultsOf, withRider, type Aim, type AimTarget, type Rider } from '@fleet-rail/core';
import { FieldGrid, Hint, Section, SectionTitle } from '../../ui/panel';
import { QuantityFields } from '../../ui/quantity-fields';
import { useDesk } from '../../state/desk-store';
import { AIM_FIELDS, PickTarget, TargetFields } from './aim-section';

/** Target of a rider at rest, carried, or moved by hand. */
export function RestAimSection({ rider }: { rider: Rider }) {
  const edit = useDesk((state) => state.edit);
  const { restAim } = rider;
  const change = (part: Partial<RestAim>, gesture?: string) =>
    edit(
      'Rest aim',
      (shot) =>
        withRider(shot, rider.id, (one) => ({
          ...one,
          restAim: { ...(one.restAim ?? defaultsOf(RestAim)), ...part },
        })),
      gesture,
    );
  return (
    <Section aria-label="Rest aim">
      <SectionTitle>
        {rider.badge} {rider.name} aims
      </SectionTitle>
      <Hint>Turns to its target; without one it keeps its heading.</Hint>
      <TargetFields
        rider={rider}
        facing={{ target: restAim?.target ?? null, ahead: 0 }}
        change={({ target }: { target?: AimTarget | null }, gesture) =>
          change({ target: target ?? null }, gesture)
        }
      />
      <PickTarget riderId={rider.id} />
      {restAim?.target && (
        <FieldGrid>
          <QuantityFields
            fields={AIM_FIELDS}
            value={restAim.aim}
            onChange={(part: Partial<Aim>, gesture) => change({ aim: { ...restAim.aim, ...part } }, gesture)}
          />
        </FieldGrid>
      )}
    </Section>
  );
}
