import { PathError, compiledPathOf, heightProfile, type ShotPath } from '@fleet-rail/core';
import { lazy, Suspense, useMemo } from 'react';
import styled from 'styled-components';
import { groundHeightOf } from '../../workers/scene-assets/ground-height';
import { riderTrack } from './rider-track';
import { Hint, Section, SectionTitle } from '../../ui/panel';
import { showNumber } from '../../ui/quantity';
import { useDesk, useSelectedRider } from '../../state/desk-store';
import { useComeIntoView } from '../shared/use-come-into-view';

/** Charts are loaded when the first comes into view; room is kept for it, so that nothing moves then. */
const ProfileChart = lazy(() => import('./profile-chart'));

const ChartRoom = styled.div`
  height: 120px;
`;

const PLACES = 160;

/** The path's height over the ground along its length, with the place of the playhead and the marks. */
export function ProfileSection({ path }: { path: ShotPath }) {
  const [room, seen] = useComeIntoView();
  const ground = useDesk((state) => state.ground);
  const rider = useSelectedRider();
  const heights = groundHeightOf(ground);
  const curve = compiledPathOf(path);
  const profile = useMemo(
    () => (curve instanceof PathError ? [] : heightProfile(curve, heights, PLACES)),
    [curve, heights],
  );
  const riding = rider?.attachment?.path === path.id;
  const poses = useDesk((state) => (riding ? state.evaluation?.riders.get(rider.id)?.poses : undefined));
  const first = useDesk(({ shot }) => shot.range.first);
  const step = useDesk((state) => state.evaluation?.step ?? 1);
  const track = useMemo(
    () => (curve instanceof PathError || !poses ? null : riderTrack(poses, curve, heights)),
    [poses, curve, heights],
  );
  if (curve instanceof PathError) return null;
  const over = profile.flatMap(({ path: height, ground: below }) => (below === null ? [] : [height - below]));
  const lowest = Math.min(...over);
  return (
    <Section aria-label="Height over ground">
      <SectionTitle>Height over ground</SectionTitle>
      <ChartRoom ref={room}>
        <Suspense>
          {seen && (
            <ProfileChart
              path={path}
              curve={curve}
              rider={riding ? rider : null}
              profile={profile}
              track={track?.places ?? null}
            />
          )}
        </Suspense>
      </ChartRoom>
      <Hint>
        {over.length === 0
          ? 'There is no ground under this path.'
          : `From ${showNumber(lowest, 2)} to ${showNumber(Math.max(...over), 2)} m over the ground.`}
        {lowest < -0.005 ? ' It dips below.' : ''}
      </Hint>
      {rider && track?.least && (
        <Hint>
          {rider.badge} is never nearer to the ground than {showNumber(track.least.over, 2)} m, at{' '}
          {showNumber(track.least.distance, 1)} m (frame {first + track.least.sample * step}).
        </Hint>
      )}
    </Section>
  );
}
