import { PanelTitle } from '../../ui/panel';
import { useSelectedRider } from '../../state/desk-store';
import { ClearanceSection } from '../shared/clearance/clearance-section';
import { NotRiding } from '../shared/not-riding';
import { ClipsFold } from './clips-fold';
import { CyclesFold } from './cycles-fold';
import { ForcesFold } from './forces-fold';
import { GroundSection } from './ground-section';
import { HangingFold } from './hanging-fold';
import { RigSection } from './rig-section';
import { SprayFold } from './spray-fold';
import { useKeptModel } from '../../state/use-kept-model';
import { WalkSection } from './walk-section';

/** Ground contact of the selected rider: its ground, its wheels and body, its walk, and its self-moving parts. */
export function ContactStep() {
  const rider = useSelectedRider();
  const model = useKeptModel(rider);
  return (
    <>
      <PanelTitle>Contact</PanelTitle>
      <GroundSection rider={rider} />
      {rider?.attachment ? (
        <>
          <RigSection key={`rig ${rider.id}`} rider={rider} model={model} />
          <WalkSection key={`walk ${rider.id}`} rider={rider} model={model} />
          {rider.camera === null && <ClearanceSection key={`clearance ${rider.id}`} rider={rider} />}
        </>
      ) : (
        <NotRiding rider={rider} />
      )}
      {rider && <ForcesFold key={`forces ${rider.id}`} rider={rider} model={model} />}
      {rider && <HangingFold key={`hanging ${rider.id}`} rider={rider} model={model} />}
      {rider && <SprayFold key={`spray ${rider.id}`} rider={rider} model={model} />}
      {rider && <ClipsFold key={`clips ${rider.id}`} rider={rider} model={model} />}
      {rider && <CyclesFold key={`cycles ${rider.id}`} rider={rider} model={model} />}
    </>
  );
}
