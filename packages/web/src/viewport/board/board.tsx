import { POSE, axesOf, headingDeg, pitchDeg, type Rider } from '@fleet-rail/core';
import { ChevronDown, ChevronUp, Move } from 'lucide-react';
import { useMemo } from 'react';
import styled from 'styled-components';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { lineColor } from '../../ui/theme/theme';
import { Badge } from '../../ui/badge';
import { IconButton } from '../../ui/icon-button';
import { nextCorner, useBoardPlace, type Corner } from './board-place';
import { carriedAt, carriedTrack } from './carried-track';
import { ContactFigures } from './contact-figures';
import { Figure, Figures, fixed } from './figures';
import { useDesk, useSelectedRider } from '../../state/desk-store';
import { ridesWhat } from '../../ui/words/rides-what';
import { useRiderPose } from '../../state/rider-pose';

/** At the lower left it is above the choice of views. */
const AT: Record<Corner, string> = {
  bottomRight: 'right: 12px; bottom: 12px;',
  topRight: 'right: 12px; top: 12px;',
  topLeft: 'left: 12px; top: 12px;',
  bottomLeft: 'left: 12px; bottom: 52px;',
};

const Sheet = styled.section<{ $color: string; $corner: Corner }>`
  position: absolute;
  ${({ $corner }) => AT[$corner]}
  min-width: 232px;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-top: 4px solid ${({ $color }) => $color};
  border-radius: 6px;
  background: ${({ theme }) => theme.panel};
  pointer-events: none;
`;

const Head = styled.header`
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 4px 4px 4px 10px;
  font-weight: 600;
  & > small {
    margin-left: auto;
    color: ${({ theme }) => theme.quiet};
    font-size: 12px;
    font-weight: 400;
  }
  & > button {
    width: 22px;
    height: 22px;
    pointer-events: auto;
  }
`;

/** Figures of a folded board. */
const Told = styled.span`
  margin-left: 8px;
  font: 600 15px/1.3 ${LABEL_FONT};
  font-variant-numeric: tabular-nums;
  white-space: nowrap;
`;

/** The numbers of the selected rider at this frame, as on a departures board. */
export function Board() {
  const rider = useSelectedRider();
  const pose = useRiderPose(rider);
  const path = useDesk(({ shot }) => shot.paths.find((other) => other.id === rider?.attachment?.path));
  const waits = useDesk(
    ({ evaluation }) => (evaluation?.paths.get(rider?.attachment?.path ?? '')?.problem ?? null) !== null,
  );
  const carried = useCarried(rider);
  const [{ corner, folded }, setPlace] = useBoardPlace();
  if (rider === null || pose === null) return null;
  const distance = `${fixed(carried?.distance ?? pose[POSE.distance], 2)} m`;
  const speed = `${fixed(carried?.speed ?? pose[POSE.speed], 2)} m/s`;
  return (
    <Sheet aria-label="Board" $color={lineColor(rider.color)} $corner={corner}>
      <Head>
        <Badge $color={rider.color} $frozen={rider.frozen !== null}>
          {rider.badge}
        </Badge>
        {rider.name}
        {folded ? (
          <>
            <Told>{distance}</Told>
            <Told>{speed}</Told>
            <small />
          </>
        ) : (
          <small>{waits ? 'waiting' : ridesWhat(rider, path?.name)}</small>
        )}
        <IconButton
          label="Move to the next corner"
          onPress={() => setPlace({ corner: nextCorner(corner), folded })}
        >
          <Move aria-hidden />
        </IconButton>
        <IconButton
          label={folded ? 'Unfold the numbers' : 'Fold the numbers'}
          onPress={() => setPlace({ corner, folded: !folded })}
        >
          {folded ? <ChevronUp aria-hidden /> : <ChevronDown aria-hidden />}
        </IconButton>
      </Head>
      {!folded && <Sums rider={rider} pose={pose} distance={distance} speed={speed} />}
    </Sheet>
  );
}

/** All figures of an unfolded board. */
function Sums({
  rider,
  pose,
  distance,
  speed,
}: {
  rider: Rider;
  pose: Float64Array;
  distance: string;
  speed: string;
}) {
  const { forward } = axesOf(rider);
  return (
    <>
      <Figures>
        <Figure name="Distance" value={distance} />
        <Figure name="Speed" value={speed} />
        <Figure name="Height" value={`${fixed(pose[POSE.translation + 1], 2)} m`} />
        <Figure name="Heading" value={`${Math.round(headingDeg(pose, forward)) % 360}°`} />
        <Figure name="Pitch" value={`${fixed(pitchDeg(pose, forward), 1)}°`} />
        <Figure name="Bank" value={`${fixed(pose[POSE.bank], 1)}°`} />
      </Figures>
      <ContactFigures rider={rider} />
    </>
  );
}

/** Motion of a carried rider by itself; null for any other. */
function useCarried(rider: Rider | null): { distance: number; speed: number } | null {
  const evaluation = useDesk((state) => state.evaluation);
  const frame = useDesk((state) => state.frame);
  const fps = useDesk(({ shot }) => shot.fps);
  const sits =
    rider?.parent != null &&
    rider.attachment === null &&
    rider.transformKeys === null &&
    rider.frozen === null;
  const poses = sits ? evaluation?.riders.get(rider.id)?.poses : undefined;
  const way = useMemo(
    () => (poses && evaluation ? carriedTrack(poses, evaluation.step) : null),
    [poses, evaluation],
  );
  return way && evaluation ? carriedAt(way, frame - evaluation.first, fps) : null;
}
