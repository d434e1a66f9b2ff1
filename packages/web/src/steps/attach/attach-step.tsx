import { Hint, PanelTitle, Section } from '../../ui/panel';
import { useDesk, useSelectedRider } from '../../state/desk-store';
import { PlaceSection } from '../shared/place/place-section';
import { AddSection } from './add-section';
import { RideSection, RiderSection } from './rider-section';
import { RidersTree } from './riders-tree';

/** Attach riders to paths: choose riders, choose a path, see where they ride, accept. */
export function AttachStep() {
  const rider = useSelectedRider();
  const riders = useDesk((state) => state.shot.riders);
  const set = useDesk((state) => state.set);
  const several = useDesk((state) => state.together);
  // Another rider that is chosen elsewhere is chosen alone.
  const chosen = rider === null ? new Set<string>() : several.has(rider.id) ? several : new Set([rider.id]);
  const choose = (next: ReadonlySet<string>) => {
    const [first] = rider && next.has(rider.id) ? [rider.id] : next;
    const pathId = riders.find(({ id }) => id === first)?.attachment?.path;
    if (first !== undefined)
      set({ riderId: first, together: next, ...(pathId !== undefined && { pathId, points: new Set() }) });
  };
  return (
    <>
      <PanelTitle>Attach</PanelTitle>
      {rider && riders.length > 1 && (
        <Section aria-label="Riders and carriers">
          <RidersTree chosen={chosen} onChoose={choose} />
          <Hint>Ctrl-click selects several. Drag one onto another to make that its carrier.</Hint>
        </Section>
      )}
      {rider && <RideSection key={`ride ${rider.id}`} rider={rider} chosen={[...chosen]} />}
      {rider && <PlaceSection key={`place ${rider.id}`} rider={rider} chosen={[...chosen]} />}
      {rider && <RiderSection key={rider.id} rider={rider} />}
      <AddSection />
    </>
  );
}
