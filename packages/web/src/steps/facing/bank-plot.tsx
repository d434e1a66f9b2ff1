import type { Rider } from '@fleet-rail/core';
import { Area, ComposedChart, ReferenceLine, ResponsiveContainer, XAxis, YAxis } from 'recharts';
import { useTheme } from 'styled-components';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { lineColor } from '../../ui/theme/theme';
import { showNumber } from '../../ui/quantity';
import { ChartPlayhead } from '../shared/chart-playhead';

/** A rider's bank by distance, within a number of degrees to either side. */
export default function BankPlot(props: {
  rider: Rider;
  places: { distance: number; bank: number }[];
  reach: number;
}) {
  const { rider, places, reach } = props;
  const theme = useTheme();
  const color = lineColor(rider.color);
  const tick = { fontSize: 11, fontFamily: LABEL_FONT, fill: theme.quiet };
  return (
    <ResponsiveContainer width="100%" height={70}>
      <ComposedChart
        data={places}
        margin={{ top: 2, right: 0, bottom: 0, left: -8 }}
        accessibilityLayer={false}
      >
        <XAxis
          dataKey="distance"
          type="number"
          domain={['dataMin', 'dataMax']}
          tick={tick}
          tickFormatter={(value: number) => `${showNumber(value, 0)} m`}
          stroke={theme.hairline}
          height={18}
        />
        <YAxis
          domain={[-reach, reach]}
          ticks={[-reach, 0, reach]}
          tick={tick}
          tickFormatter={(value: number) => `${showNumber(value, 0)}°`}
          stroke={theme.hairline}
        />
        <ReferenceLine y={0} stroke={theme.hairline} />
        <Area
          dataKey="bank"
          baseValue={0}
          stroke={color}
          strokeWidth={1.75}
          fill={color}
          fillOpacity={0.18}
          activeDot={false}
          type="linear"
          isAnimationActive={false}
        />
        <ChartPlayhead rider={rider} />
      </ComposedChart>
    </ResponsiveContainer>
  );
}
