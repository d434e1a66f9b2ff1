import { leaderIdOf, type Hitch, type Rider } from '@fleet-rail/core';
import { ownTiming } from '../../edits/rider-edits';
import { sceneAssets } from '../../scene-assets/ground-height';
import { Button } from '../../ui/button';
import { Buttons, Hint, Section, SectionTitle } from '../../ui/panel';
import { useDesk, useDeskStore } from '../desk-store';

/** For a rider that has no timing of its own: whose it is, and how to have one. */
export function TimedByOther({ rider, hitch }: { rider: Rider; hitch: Hitch }) {
  const desk = useDeskStore();
  const riders = useDesk(({ shot }) => shot.riders);
  const edit = useDesk((state) => state.edit);
  const set = useDesk((state) => state.set);
  const leader = riders.find(({ id }) => id === leaderIdOf(hitch));
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
        <Button onPress={() => edit('Own timing', ownTiming(rider.id, sceneAssets(desk.getState())))}>
          Give it its own timing
        </Button>
      </Buttons>
    </Section>
  );
}
