import type { CompiledPath, Rider, ShotPath, heightProfile } from '@fleet-rail/core';
import { useCallback } from 'react';
import { Area, ComposedChart, Line, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { useTheme } from 'styled-components';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { lineColor } from '../../ui/theme/theme';
import { showNumber } from '../../ui/quantity';
import { ChartPlayhead } from '../shared/chart-playhead';

/** Heights of a path and of the ground under it, by distance, with the rider on it and the marks. */
export default function ProfileChart(props: {
  path: ShotPath;
  curve: CompiledPath;
  rider: Rider | null;
  profile: ReturnType<typeof heightProfile>;
  /** Real distance of the rider; null if none rides it. */
  track: readonly { readonly distance: number; readonly track: number }[] | null;
}) {
  const { path, curve, rider, profile, track } = props;
  const theme = useTheme();
  const wrap = useCallback((distance: number) => curve.wrap(distance), [curve]);
  const bottom = Math.min(
    ...profile.map(({ path: height, ground: below }) => Math.min(height, below ?? height)),
  );
  const tick = { fontSize: 11, fontFamily: LABEL_FONT, fill: theme.quiet };
  return (
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
        {track && rider && (
          <Line
            data={[...track]}
            dataKey="track"
            stroke={lineColor(rider.color)}
            strokeWidth={1.75}
            dot={false}
            activeDot={false}
            type="linear"
            isAnimationActive={false}
          />
        )}
        {path.marks.map(({ id, distance }) => (
          <ReferenceLine key={id} x={distance} stroke={theme.quiet} strokeDasharray="2 3" />
        ))}
        {rider && <ChartPlayhead rider={rider} place={wrap} />}
      </ComposedChart>
    </ResponsiveContainer>
  );
}
