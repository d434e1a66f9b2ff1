import { PanelTitle, Section, SectionTitle } from '../../ui/panel';
import { useDesk, useSelectedRider } from '../../state/desk-store';
import { NotRiding } from '../shared/not-riding';
import { HandKeysList } from '../shared/place/hand-keys-list';
import { RangeNotes } from '../shared/range-notes';
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
export function PaceStep() {
  const rider = useSelectedRider();
  const hasRiders = useDesk(({ shot }) => shot.riders.length > 0);
  const attachment = rider?.attachment;
  const ownTiming = attachment && !attachment.coupledTo && !attachment.pacedBy;
  return (
    <>
      <PanelTitle>Pace</PanelTitle>
      {rider && attachment ? (
        ownTiming ? (
          <>
            <TimingSection rider={rider} pace={attachment.pace} />
            <RangeNotes riderId={rider.id} />
            {attachment.pace.mode === 'keys' && <KeysSection rider={rider} pace={attachment.pace} />}
            {attachment.pace.mode === 'speed' && <SpeedsSection rider={rider} pace={attachment.pace} />}
            {attachment.pace.mode === 'drive' && <DriveSection rider={rider} pace={attachment.pace} />}
            <OutsideFold rider={rider} pace={attachment.pace} />
            <TakesFold rider={rider} attachment={attachment} />
          </>
        ) : (
          <TimedByOther rider={rider} attachment={attachment} />
        )
      ) : rider?.transformKeys ? (
        <Section aria-label="Keys by hand">
          <SectionTitle>
            {rider.badge} {rider.name} is moved by hand
          </SectionTitle>
          <HandKeysList rider={rider} keyed={rider.transformKeys} />
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
