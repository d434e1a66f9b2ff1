import { POSE, axesOf, headingDeg, pitchDeg, type Rider } from '@fleet-rail/core';
import { useMemo } from 'react';
import styled from 'styled-components';
import { lineColor } from '../../theme/theme';
import { Badge } from '../../ui/badge';
import { carriedAt, carriedWay } from './carried-way';
import { ContactFigures } from './contact-figures';
import { Figure, Figures, fixed } from './figures';
import { useDesk, useSelectedRider } from '../desk-store';
import { ridesWhat } from '../rides-what';
import { useRiderPose } from '../rider-pose';

const Sheet = styled.section<{ $color: string }>`
  position: absolute;
  right: 12px;
  bottom: 12px;
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
  padding: 6px 10px 4px;
  font-weight: 600;
  & > small {
    margin-left: auto;
    color: ${({ theme }) => theme.quiet};
    font-size: 12px;
    font-weight: 400;
  }
`;

/** The numbers of the selected rider at this frame, as on a departures board. */
export function Board() {
  const rider = useSelectedRider();
  const pose = useRiderPose(rider);
  const path = useDesk(({ shot }) => shot.paths.find((other) => other.id === rider?.hitch?.path));
  const waits = useDesk(
    ({ evaluation }) => (evaluation?.paths.get(rider?.hitch?.path ?? '')?.problem ?? null) !== null,
  );
  const carried = useCarried(rider);
  if (rider === null || pose === null) return null;
  const forward = axesOf(rider).forward;
  return (
    <Sheet aria-label="Board" $color={lineColor(rider.color)}>
      <Head>
        <Badge $color={rider.color} $frozen={rider.frozen !== null}>
          {rider.badge}
        </Badge>
        {rider.name}
        <small>{waits ? 'waiting' : ridesWhat(rider, path?.name)}</small>
      </Head>
      <Figures>
        <Figure name="Distance" value={`${fixed(carried?.distance ?? pose[POSE.distance], 2)} m`} />
        <Figure name="Speed" value={`${fixed(carried?.speed ?? pose[POSE.speed], 2)} m/s`} />
        <Figure name="Height" value={`${fixed(pose[POSE.translation + 1], 2)} m`} />
        <Figure name="Heading" value={`${Math.round(headingDeg(pose, forward)) % 360}°`} />
        <Figure name="Pitch" value={`${fixed(pitchDeg(pose, forward), 1)}°`} />
        <Figure name="Bank" value={`${fixed(pose[POSE.bank], 1)}°`} />
      </Figures>
      <ContactFigures rider={rider} />
    </Sheet>
  );
}

/** What a rider goes that others carry, by itself; null for any other. */
function useCarried(rider: Rider | null): { distance: number; speed: number } | null {
  const evaluation = useDesk((state) => state.evaluation);
  const frame = useDesk((state) => state.frame);
  const fps = useDesk(({ shot }) => shot.fps);
  const sits = rider?.parent != null && rider.hitch === null && rider.keyed === null && rider.frozen === null;
  const poses = sits ? evaluation?.riders.get(rider.id)?.poses : undefined;
  const way = useMemo(
    () => (poses && evaluation ? carriedWay(poses, evaluation.step) : null),
    [poses, evaluation],
  );
  return way && evaluation ? carriedAt(way, frame - evaluation.first, fps) : null;
}
