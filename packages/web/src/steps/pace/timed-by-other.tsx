import { leaderIdOf, type Attachment, type Rider } from '@fleet-rail/core';
import { Button } from '../../ui/button';
import { Buttons, Hint, Section, SectionTitle } from '../../ui/panel';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { attemptAsked } from '../../commands/attempt';

/** For a rider without its own pace: whose it has, and how to get its own. */
export function TimedByOther({ rider, attachment }: { rider: Rider; attachment: Attachment }) {
  const desk = useDeskStore();
  const riders = useDesk(({ shot }) => shot.riders);
  const set = useDesk((state) => state.set);
  const leader = riders.find(({ id }) => id === leaderIdOf(attachment));
  if (leader === undefined) return null;
  return (
    <Section aria-label="Pace">
      <SectionTitle>
        Pace of {rider.badge} {rider.name}
      </SectionTitle>
      <Hint>
        {attachment.coupledTo ? 'It hangs behind' : 'It has the pace of'} {leader.badge} {leader.name}.
      </Hint>
      <Buttons>
        <Button onPress={() => set({ riderId: leader.id })}>Go to {leader.badge}</Button>
        <Button onPress={() => void attemptAsked(desk, 'Own pace', 'ownTiming', rider.id)}>
          Give it its own pace
        </Button>
      </Buttons>
    </Section>
  );
}
