import { anglesOf, type Rider } from '@fleet-rail/core';
import { Hint, Section } from '../../ui/panel';
import { showNumber } from '../../ui/quantity';
import { useDesk } from '../../state/desk-store';

/** Position of a rider on its carrier, in words. */
function seatOf({ rest: { translation, rotation } }: Rider): string {
  const [left, up, ahead] = translation;
  const { yaw } = anglesOf(rotation);
  const metres = (value: number, plus: string, minus: string) =>
    Math.abs(value) < 0.005 ? [] : [`${showNumber(Math.abs(value), 2)} m ${value > 0 ? plus : minus}`];
  const turned =
    Math.abs(yaw) < 0.05
      ? []
      : [`turned ${showNumber(Math.abs(yaw), 1)}° to the ${yaw > 0 ? 'left' : 'right'}`];
  const all = [
    ...metres(ahead, 'ahead', 'behind'),
    ...metres(left, 'to the left', 'to the right'),
    ...metres(up, 'up', 'down'),
    ...turned,
  ];
  return all.length === 0 ? 'at its origin' : all.join(', ');
}

/** Text of a step that needs a rider on a path, if there is none. */
export function NotRiding({ rider }: { rider: Rider | null }) {
  const riders = useDesk(({ shot }) => shot.riders);
  const carrier = riders.find(({ id }) => id === rider?.parent);
  const leader = riders.find(({ id }) => id === rider?.follow?.rider);
  return (
    <Section>
      <Hint>
        {rider === null
          ? 'Add a rider first, under Attach.'
          : leader
            ? `${rider.badge} follows ${leader.badge}; the offset is at the Attach step.`
            : carrier
              ? `${rider.badge} is carried by ${carrier.badge}: ${seatOf(rider)} of its origin. Its fields are at the Attach step.`
              : `${rider.badge} is not attached to a path. Set its position at the Attach step.`}
      </Hint>
    </Section>
  );
}
