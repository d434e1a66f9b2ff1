import styled, { useTheme } from 'styled-components';
import type { ShotCard } from '../../api/shots';
import { lineColor } from '../../ui/theme/theme';

const Sheet = styled.svg`
  display: block;
  width: 100%;
  aspect-ratio: 16 / 9;
  background: ${({ theme }) => theme.stageGround};
`;

const WIDTH = 320;
const HEIGHT = 180;
const MARGIN = 22;

/** A shot's paths from above, fitted to the card, each in the colour of what rides it. */
export function PathSketch({ sketch }: { sketch: ShotCard['sketch'] }) {
  const theme = useTheme();
  const all = sketch.paths.flatMap((path) => pairs(path.points));
  if (all.length === 0) return <Sheet viewBox={`0 0 ${WIDTH} ${HEIGHT}`} aria-hidden />;
  const xs = all.map(([x]) => x);
  const zs = all.map(([, z]) => z);
  const [x0, x1, z0, z1] = [Math.min(...xs), Math.max(...xs), Math.min(...zs), Math.max(...zs)];
  const scale = Math.min(
    (WIDTH - 2 * MARGIN) / Math.max(x1 - x0, 0.1),
    (HEIGHT - 2 * MARGIN) / Math.max(z1 - z0, 0.1),
  );
  const place = ([x, z]: [number, number]) =>
    [WIDTH / 2 + (x - (x0 + x1) / 2) * scale, HEIGHT / 2 + (z - (z0 + z1) / 2) * scale] as const;
  return (
    <Sheet viewBox={`0 0 ${WIDTH} ${HEIGHT}`} aria-hidden>
      {sketch.paths.map(({ points, color }, i) => {
        const places = pairs(points).map(place);
        const stroke = color === null ? theme.idlePath : lineColor(color);
        return (
          <g key={i} fill="none" stroke={stroke} strokeLinecap="round" strokeLinejoin="round">
            <polyline points={places.map((p) => p.join()).join(' ')} strokeWidth={color === null ? 2 : 5} />
            <circle cx={places[0][0]} cy={places[0][1]} r={4.5} fill={theme.panel} strokeWidth={2.5} />
          </g>
        );
      })}
    </Sheet>
  );
}

function pairs(points: readonly number[]): [number, number][] {
  const result: [number, number][] = [];
  for (let i = 0; i + 1 < points.length; i += 2) result.push([points[i], points[i + 1]]);
  return result;
}
