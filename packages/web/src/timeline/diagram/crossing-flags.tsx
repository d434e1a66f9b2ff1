import { crossings, type Crossing } from '@fleet-rail/core';
import styled from 'styled-components';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { lineColor } from '../../ui/theme/theme';
import { useDesk } from '../../state/desk-store';
import type { DiagramBand, DiagramScales } from './diagram-scales';

const Flag = styled.g`
  & circle {
    fill: ${({ theme }) => theme.panel};
    stroke: ${({ theme }) => theme.ink};
    stroke-width: 1.5;
  }
  & text {
    font: 500 11px ${LABEL_FONT};
    fill: ${({ theme }) => theme.ink};
    paint-order: stroke;
    stroke: ${({ theme }) => theme.panel};
    stroke-width: 3px;
  }
`;

/** More are not drawn: they would cover the lines. */
const MOST = 60;

const cached = new WeakMap<Float64Array, WeakMap<Float64Array, Crossing[]>>();

/** Crossings of two riders, found once for as long as neither moves otherwise. */
function crossingsOf(a: Float64Array, b: Float64Array, length: number | null): Crossing[] {
  const ofA = cached.get(a) ?? new WeakMap<Float64Array, Crossing[]>();
  cached.set(a, ofA);
  const found = ofA.get(b) ?? crossings(a, b, length);
  ofA.set(b, found);
  return found;
}

/** Meetings of riders on one path, with their gaps. */
export function CrossingFlags({ band, x }: { band: DiagramBand; x: DiagramScales['x'] }) {
  const evaluation = useDesk((state) => state.evaluation);
  const path = evaluation?.paths.get(band.pathId);
  if (!evaluation || !path) return null;
  const riders = band.riders.flatMap((rider) => {
    const poses = evaluation.riders.get(rider.id)?.poses;
    return poses ? [{ rider, poses }] : [];
  });
  const found = riders.flatMap((a, i) =>
    riders.slice(i + 1).flatMap((b) =>
      crossingsOf(a.poses, b.poses, path.closed ? path.length : null).map((crossing) => ({
        ...crossing,
        riders: [a.rider, b.rider],
      })),
    ),
  );
  return (
    <g>
      {found.slice(0, MOST).map(({ sample, distance, gap, riders: [a, b] }, i) => {
        const px = x(evaluation.first + sample * evaluation.step);
        const py = band.y(distance);
        if (px < x.range()[0] || px > x.range()[1] || py < band.top - 2 || py > band.foot + 2) return null;
        const text = `${a.badge} and ${b.badge} meet at ${distance.toFixed(1)} m, ${gap.toFixed(2)} m apart`;
        return (
          <Flag key={i} role="img" aria-label={text}>
            <title>{text}</title>
            <circle cx={px} cy={py} r={4.5} />
            <path d={`M${px - 4.5} ${py}a4.5 4.5 0 0 1 9 0z`} fill={lineColor(a.color)} />
            <path d={`M${px + 4.5} ${py}a4.5 4.5 0 0 1 -9 0z`} fill={lineColor(b.color)} />
            <text x={px + 8} y={py + 12}>
              {gap.toFixed(1)} m
            </text>
          </Flag>
        );
      })}
    </g>
  );
}
