import { POSE, type Rider } from '@fleet-rail/core';
import { lazy, Suspense, useMemo } from 'react';
import styled from 'styled-components';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { showNumber } from '../../ui/quantity';
import { useDesk, useSelectedRider } from '../../state/desk-store';
import { useRiderPose } from '../../state/rider-pose';

const Strip = styled.section`
  height: 92px;
  padding: 2px 14px 0 0;
  border-top: 1px solid ${({ theme }) => theme.hairline};
  & > p {
    display: flex;
    gap: 14px;
    padding-left: 52px;
    font: 500 12px/18px ${LABEL_FONT};
    color: ${({ theme }) => theme.quiet};
    & > b {
      color: ${({ theme }) => theme.ink};
      font-weight: 600;
      font-variant-numeric: tabular-nums;
    }
  }
`;

/** Charts are loaded when the first is shown; room is kept for it. */
const BankPlot = lazy(() => import('./bank-plot'));

const ChartRoom = styled.div`
  height: 70px;
`;

/** Most samples of a ride that are drawn. */
const MOST_PLACES = 1_200;

/** A rider's bank by distance, with the most of it. */
function bankAlong(poses: Float64Array): {
  places: { distance: number; bank: number }[];
  most: { distance: number; bank: number };
} {
  const samples = poses.length / POSE.size;
  const stride = Math.max(1, Math.ceil(samples / MOST_PLACES));
  const places = [];
  let most = { distance: 0, bank: 0 };
  for (let i = 0; i < samples; i++) {
    const at = i * POSE.size;
    const place = { distance: poses[at + POSE.distance], bank: poses[at + POSE.bank] };
    if (Math.abs(place.bank) > Math.abs(most.bank)) most = place;
    if (i % stride === 0 || i === samples - 1) places.push(place);
  }
  return { places, most };
}

/** The selected rider's bank in degrees along its path, at the speeds of the shot. */
export function BankChart() {
  const rider = useSelectedRider();
  const evaluated = useDesk(({ evaluation }) => (rider ? evaluation?.riders.get(rider.id) : undefined));
  if (!rider?.attachment || rider.attachment.bank.mode === 'none' || !evaluated) return null;
  return <Chart rider={rider} poses={evaluated.poses} />;
}

function Chart({ rider, poses }: { rider: Rider; poses: Float64Array }) {
  const { places, most } = useMemo(() => bankAlong(poses), [poses]);
  const reach = Math.max(1, Math.ceil(Math.abs(most.bank) / 5) * 5);
  return (
    <Strip aria-label="Bank along the path">
      <p>
        <span>
          Bank of {rider.badge}
          {rider.attachment?.bank.mode === 'physical' && ', at the speeds of this shot'}
        </span>
        <BankNow rider={rider} />
        <span>
          most <b aria-label="Most bank">{showNumber(most.bank, 1)}°</b> at {showNumber(most.distance, 1)} m
        </span>
      </p>
      <ChartRoom>
        <Suspense>
          <BankPlot rider={rider} places={places} reach={reach} />
        </Suspense>
      </ChartRoom>
    </Strip>
  );
}

/** The bank at this frame. */
function BankNow({ rider }: { rider: Rider }) {
  const pose = useRiderPose(rider);
  if (pose === null) return null;
  return (
    <span>
      now <b aria-label="Bank now">{showNumber(pose[POSE.bank], 1)}°</b> at{' '}
      {showNumber(pose[POSE.distance], 1)} m
    </span>
  );
}
