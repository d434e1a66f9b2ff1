import { withOwnPace, withRider, type Hitch, type Rider } from '@fleet-rail/core';
import { Button } from '../../ui/button';
import { Buttons, Hint, Section, SectionTitle } from '../../ui/panel';
import { useDesk } from '../desk-store';

/** For a rider that has no timing of its own: whose it is, and how to have one. */
export function TimedByOther({ rider, hitch }: { rider: Rider; hitch: Hitch }) {
  const riders = useDesk(({ shot }) => shot.riders);
  const edit = useDesk((state) => state.edit);
  const set = useDesk((state) => state.set);
  const leader = riders.find(({ id }) => id === (hitch.follows ?? hitch.pacedBy)?.rider);
  if (leader === undefined) return null;
  return (
    <Section aria-label="Timing">
      <SectionTitle>
        Timing of {rider.badge} {rider.name}
      </SectionTitle>
      <Hint>
        {hitch.follows ? 'It hangs behind' : 'It takes its time from'} {leader.badge} {leader.name}.
      </Hint>
      <Buttons>
        <Button onPress={() => set({ riderId: leader.id })}>Go to {leader.badge}</Button>
        <Button
          onPress={() =>
            edit('Own timing', (shot) => withRider(shot, rider.id, (before) => withOwnPace(shot, before)))
          }
        >
          Give it its own timing
        </Button>
      </Buttons>
    </Section>
  );
}
