import type { Rider } from '@fleet-rail/core';
import { useDesk } from './desk-store';
import { Hint, Section } from '../ui/panel';

/** What a step says that needs a rider on a path, where there is none. */
export function NotRiding({ rider }: { rider: Rider | null }) {
  const carrier = useDesk(({ shot }) => shot.riders.find(({ id }) => id === rider?.parent));
  return (
    <Section>
      <Hint>
        {rider === null
          ? 'Add a rider first, under Attach.'
          : carrier
            ? `${rider.badge} sits on ${carrier.badge}. What is set here is where it sits.`
            : `${rider.badge} rides no path. It stands, or is moved by hand, where Attach has it.`}
      </Hint>
    </Section>
  );
}
