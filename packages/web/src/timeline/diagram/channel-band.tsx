import {
  channelLimits,
  channelPace,
  channelValue,
  type ChannelId,
  type Rider,
  type Shot,
} from '@fleet-rail/core';
import { scaleLinear, type ScaleLinear } from 'd3-scale';
import { useTheme } from 'styled-components';
import { lineColor } from '../../ui/theme/theme';
import { AxisText, LevelLine } from './diagram-text';
import { MARGIN, type DiagramScales } from './diagram-scales';
import type { KeyedLine } from './keyed-line';

type Scale = ScaleLinear<number, number>;

/** From a channel's values to up, in the place of the distances: what there is of it, and some room to drag. */
export function channelScale(shot: Shot, rider: Rider, id: ChannelId, { strip }: DiagramScales): Scale {
  const value = channelValue(rider, id);
  const { first, last } = shot.range;
  const step = Math.max(1, (last - first) / SAMPLES);
  const values = channelPace(rider, id).keys.map((key) => key.value);
  for (let frame = first; frame <= last; frame += step) values.push(value(frame));
  const [low, high] = [Math.min(...values), Math.max(...values)];
  const [least, most] = channelLimits(id);
  const whole = most - least === 1;
  const room = Math.max((high - low) * 0.15, ROOM[id] ?? 1);
  const domain = whole ? [-0.05, 1.05] : [Math.max(least, low - room), Math.min(most, high + room)];
  return scaleLinear(domain, [strip.top - GUTTER, MARGIN.top]);
}

const SAMPLES = 400;
/** Pixels between it and the strip. */
const GUTTER = 8;
/** The room above and below what does not change. */
const ROOM: Partial<Record<ChannelId, number>> = { yaw: 10, pitch: 10, roll: 10, focal: 10 };

/** A channel of the selected rider over time. */
export function ChannelBand(props: { line: KeyedLine; x: Scale; y: Scale; width: number; clip: string }) {
  const { line, x, y, width, clip } = props;
  const theme = useTheme();
  const { rider, curve, geometry, unit } = line;
  const ticks = Math.max(2, Math.min(5, Math.floor((y.range()[0] - y.range()[1]) / 34)));
  const [from, to] = x.range();
  const pixels = Array.from({ length: Math.max(2, Math.round((to - from) / 2)) }, (_, i) => from + 2 * i);
  return (
    <g aria-hidden>
      {y.ticks(ticks).map((tick) => (
        <g key={tick}>
          <LevelLine y={y(tick)} width={width} stroke={theme.hairline} />
          <AxisText x={MARGIN.left - 8} y={y(tick) + 4} textAnchor="end">
            {tick} {unit}
          </AxisText>
        </g>
      ))}
      <path
        clipPath={`url(#${clip})`}
        d={
          curve
            ? pixels
                .map((px, i) => `${i === 0 ? 'M' : 'L'}${px} ${geometry.up(curve(geometry.frameAt(px)))}`)
                .join('')
            : ''
        }
        fill="none"
        stroke={lineColor(rider.color)}
        strokeWidth={3}
        strokeLinejoin="round"
      />
    </g>
  );
}
