import type { Rider } from '@fleet-rail/core';
import { Hint, Section } from '../ui/panel';

/** What a step says that needs a rider on a path, where there is none. */
export function NotRiding({ rider }: { rider: Rider | null }) {
  return (
    <Section>
      <Hint>
        {rider ? `${rider.badge} rides nothing yet. Attach it first.` : 'Add a rider first, under Attach.'}
      </Hint>
    </Section>
  );
}
