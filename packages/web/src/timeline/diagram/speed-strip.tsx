import { hasOwnPace, type Rider } from '@fleet-rail/core';
import { scaleLinear } from 'd3-scale';
import { useTheme } from 'styled-components';
import { lineColor } from '../../ui/theme/theme';
import { showNumber } from '../../ui/quantity';
import { useDesk } from '../../state/desk-store';
import { AxisText, LevelLine } from './diagram-text';
import { MARGIN, type DiagramScales } from './diagram-scales';
import { FULL_LINES, linePath } from './line-path';
import { SpeedKnobs, SpeedStretches } from './speed-grips';
import { STRIP_UNITS, stripLimits, stripLine } from './strip-channel';

/** Below the distances: speed, or what it asks of the rider, with the limits it is driven within. */
export function SpeedStrip(props: {
  scales: DiagramScales;
  width: number;
  riders: readonly Rider[];
  /** The id of what lines are clipped by. */
  clip: string;
}) {
  const { scales, width, riders, clip } = props;
  const theme = useTheme();
  const shot = useDesk((state) => state.shot);
  const evaluation = useDesk((state) => state.evaluation);
  const riderId = useDesk((state) => state.riderId);
  const what = useDesk((state) => state.diagram.strip);
  const { x, strip } = scales;
  const selected = riders.find(({ id }) => id === riderId) ?? null;
  // Limits apply to one rider at a time.
  const drawn = what === 'speed' ? riders : selected ? [selected] : [];
  const lines = drawn.flatMap((rider) => {
    const evaluated = evaluation?.riders.get(rider.id);
    if (!evaluation || !evaluated) return [];
    return [{ rider, ...stripLine(what, evaluated, evaluation, shot.fps) }];
  });
  const pace = selected?.attachment?.pace;
  const limits = pace?.mode === 'drive' ? stripLimits(what, pace.drive) : [];
  const all = lines.flatMap((one) => [one.low, one.high]);
  const [low, high] = [
    Math.min(0, ...all, ...limits),
    Math.max(what === 'sideways' ? 0.1 : 1, ...all, ...limits),
  ];
  const y = scaleLinear([low, high * 1.12], [strip.foot, strip.top]);
  // Hundreds of lines are a band: each needs less of its detail.
  const pixels = width / Math.max(1, lines.length / FULL_LINES);
  return (
    <g>
      <g aria-hidden>
        {y.ticks(2).map((tick) => (
          <g key={tick}>
            <LevelLine y={y(tick)} width={width} stroke={theme.hairline} strokeDasharray="2 3" />
            <AxisText x={MARGIN.left - 8} y={y(tick) + 4} textAnchor="end">
              {showNumber(tick, 2)} {STRIP_UNITS[what]}
            </AxisText>
          </g>
        ))}
        {limits.map((limit) => (
          <LevelLine key={limit} y={y(limit)} width={width} stroke={theme.attention} strokeDasharray="6 4" />
        ))}
      </g>
      <g aria-hidden clipPath={`url(#${clip})`}>
        {lines.map(({ rider, values }) => (
          <path
            key={rider.id}
            d={evaluation ? linePath(values, 'values', evaluation, x, y, pixels) : ''}
            fill="none"
            stroke={lineColor(rider.color)}
            strokeWidth={rider.id === riderId ? 2 : 1.25}
            strokeLinejoin="round"
          />
        ))}
      </g>
      {what === 'speed' && selected?.attachment && pace && hasOwnPace(selected.attachment) && (
        <g clipPath={`url(#${clip})`}>
          {pace.mode === 'speed' && <SpeedKnobs rider={selected} pace={pace} x={x} y={y} />}
          {pace.mode === 'keys' && <SpeedStretches rider={selected} pace={pace} x={x} y={y} />}
        </g>
      )}
    </g>
  );
}
