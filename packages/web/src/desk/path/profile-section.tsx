import { POSE, PathError, compiledPathOf, heightProfile, type ShotPath } from '@fleet-rail/core';
import { useMemo } from 'react';
import { Area, ComposedChart, Line, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { useTheme } from 'styled-components';
import { groundHeightOf } from '../../scene-assets/ground-height';
import { LABEL_FONT } from '../../theme/global-style';
import { Hint, Section, SectionTitle } from '../../ui/panel';
import { showNumber } from '../../ui/quantity';
import { useDesk, useSelectedRider } from '../desk-store';
import { useRiderPose } from '../use-rider-pose';

const PLACES = 160;

/** The path's height over the ground along its length, with the place of the playhead and the marks. */
export function ProfileSection({ path }: { path: ShotPath }) {
  const theme = useTheme();
  const ground = useDesk((state) => state.ground);
  const rider = useSelectedRider();
  const pose = useRiderPose(rider);
  const heights = groundHeightOf(ground);
  const curve = compiledPathOf(path);
  const profile = useMemo(
    () => (curve instanceof PathError ? [] : heightProfile(curve, heights, PLACES)),
    [curve, heights],
  );
  if (curve instanceof PathError) return null;
  const over = profile.flatMap(({ path: height, ground: below }) => (below === null ? [] : [height - below]));
  const lowest = Math.min(...over);
  const bottom = Math.min(
    ...profile.map(({ path: height, ground: below }) => Math.min(height, below ?? height)),
  );
  const playhead = pose && rider?.hitch?.path === path.id ? curve.wrap(pose[POSE.distance]) : null;
  const tick = { fontSize: 11, fontFamily: LABEL_FONT, fill: theme.quiet };
  return (
    <Section aria-label="Height over ground">
      <SectionTitle>Height over ground</SectionTitle>
      <ResponsiveContainer width="100%" height={120}>
        <ComposedChart
          data={profile}
          margin={{ top: 6, right: 6, bottom: 0, left: -26 }}
          accessibilityLayer={false}
        >
          <XAxis
            dataKey="distance"
            type="number"
            domain={[0, curve.length]}
            tick={tick}
            tickFormatter={(value: number) => `${showNumber(value, 0)} m`}
            stroke={theme.hairline}
          />
          <YAxis
            domain={[Math.min(0, Math.floor(bottom + 0.05)), 'auto']}
            tick={tick}
            tickFormatter={(value: number) => showNumber(value, 1)}
            stroke={theme.hairline}
          />
          <Area
            dataKey="ground"
            fill={theme.stageGround}
            stroke={theme.gridCoarse}
            activeDot={false}
            type="linear"
            isAnimationActive={false}
          />
          <Line
            dataKey="path"
            stroke={theme.ink}
            strokeWidth={1.75}
            dot={false}
            activeDot={false}
            type="linear"
            isAnimationActive={false}
          />
          {path.marks.map(({ id, distance }) => (
            <ReferenceLine key={id} x={distance} stroke={theme.quiet} strokeDasharray="2 3" />
          ))}
          {playhead !== null && <ReferenceLine x={playhead} stroke={theme.signal} strokeWidth={1.5} />}
        </ComposedChart>
      </ResponsiveContainer>
      <Hint>
        {over.length === 0
          ? 'There is no ground under this path.'
          : `From ${showNumber(lowest, 2)} to ${showNumber(Math.max(...over), 2)} m over the ground.`}
        {lowest < -0.005 ? ' It dips below.' : ''}
      </Hint>
    </Section>
  );
}
