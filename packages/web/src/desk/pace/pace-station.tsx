import { PanelTitle, Section, SectionTitle } from '../../ui/panel';
import { useDesk, useSelectedRider } from '../desk-store';
import { NotRiding } from '../not-riding';
import { HandKeysList } from '../place/hand-keys-list';
import { RangeNotes } from '../range-notes';
import { CuesFold } from './cues-fold';
import { DriveSection } from './drive-section';
import { KeysSection } from './keys-section';
import { LoopFold } from './loop-fold';
import { OutsideFold } from './outside-fold';
import { RetimeFold } from './retime-fold';
import { ShotSection } from './shot-section';
import { SpeedsSection } from './speeds-section';
import { TakesFold } from './takes-fold';
import { TimedByOther } from './timed-by-other';
import { TimingSection } from './timing-section';

/** Time the ride: the shot's range, and how the selected rider is timed. */
export function PaceStation() {
  const rider = useSelectedRider();
  const hasRiders = useDesk(({ shot }) => shot.riders.length > 0);
  const hitch = rider?.hitch;
  const ownTiming = hitch && !hitch.follows && !hitch.pacedBy;
  return (
    <>
      <PanelTitle>Pace</PanelTitle>
      {rider && hitch ? (
        ownTiming ? (
          <>
            <TimingSection rider={rider} pace={hitch.pace} />
            <RangeNotes riderId={rider.id} />
            {hitch.pace.mode === 'keys' && <KeysSection rider={rider} pace={hitch.pace} />}
            {hitch.pace.mode === 'speed' && <SpeedsSection rider={rider} pace={hitch.pace} />}
            {hitch.pace.mode === 'drive' && <DriveSection rider={rider} pace={hitch.pace} />}
            <OutsideFold rider={rider} pace={hitch.pace} />
            <TakesFold rider={rider} hitch={hitch} />
          </>
        ) : (
          <TimedByOther rider={rider} hitch={hitch} />
        )
      ) : rider?.keyed ? (
        <Section aria-label="Keys by hand">
          <SectionTitle>
            {rider.badge} {rider.name} is moved by hand
          </SectionTitle>
          <HandKeysList rider={rider} keyed={rider.keyed} />
        </Section>
      ) : (
        <NotRiding rider={rider} />
      )}
      {hasRiders && (
        <>
          <LoopFold rider={rider} />
          <RetimeFold />
          <CuesFold />
        </>
      )}
      <ShotSection />
    </>
  );
}
