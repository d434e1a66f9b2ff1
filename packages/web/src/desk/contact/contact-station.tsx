import { Hint, PanelTitle, Section, SectionTitle } from '../../ui/panel';
import { useDesk, useSelectedRider } from '../desk-store';

/** What the shot keeps about wheels, ground and gait of the selected rider; none of it is played yet. */
export function ContactStation() {
  const rider = useSelectedRider();
  const ground = useDesk(({ shot }) => shot.models.find((model) => model.id === shot.ground.model)?.name);
  return (
    <>
      <PanelTitle>Contact</PanelTitle>
      <Section>
        <SectionTitle>Ground</SectionTitle>
        <Hint>{ground ? `${ground} is shown as the ground.` : 'No model serves as ground.'}</Hint>
        <Hint>
          Wheels, ground contact and gait are kept in the shot file but not played yet: the model rides as it
          stands, at the height of its path.
        </Hint>
      </Section>
      {rider && (
        <Section>
          <SectionTitle>
            {rider.badge} {rider.name}
          </SectionTitle>
          <Hint>
            Kept for it: {rider.wheels.length} wheels, {rider.cycles.length} cycles,{' '}
            {rider.gait ? `the gait "${rider.gait.clip}"` : 'no gait'}.
          </Hint>
        </Section>
      )}
    </>
  );
}
