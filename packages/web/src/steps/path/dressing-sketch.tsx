import type { Dressing } from '@fleet-rail/core';
import { useMemo } from 'react';
import styled, { useTheme } from 'styled-components';
import type { KeptModel } from '../../api/models';

const Drawing = styled.svg`
  display: block;
  width: 100%;
  height: 40px;
`;

/** So many metres are sketched. */
const LONG = 3;
/** View direction: how far ahead goes to the right and up, per metre. */
const [ALONG, RISE] = [0.55, 0.42];

type Place = readonly [x: number, y: number, z: number];
interface Face {
  readonly corners: readonly Place[];
  readonly shade: number;
  readonly depth: number;
}

/** Three metres of a dressing, in one colour: a profile as swept, pieces as their boxes. */
export function DressingSketch({ laid, model }: { laid: LaidLook; model: KeptModel | null }) {
  const theme = useTheme();
  const { faces, box } = useMemo(() => sketchOf(laid, model), [laid, model]);
  const color = laid.kind === 'profile' ? laid.color : theme.quiet;
  return (
    <Drawing viewBox={box} aria-hidden preserveAspectRatio="xMidYMid meet">
      {faces.map(({ corners, shade }, i) => (
        <polygon
          key={i}
          points={corners.map((corner) => onPaper(corner).join()).join(' ')}
          fill={color}
          stroke={theme.ink}
          strokeWidth={0.6}
          vectorEffect="non-scaling-stroke"
          style={{ filter: `brightness(${shade})` }}
        />
      ))}
    </Drawing>
  );
}

/** Sketched part of a dressing. */
export type LaidLook = Pick<Dressing, 'kind' | 'profile' | 'ring' | 'both' | 'offset' | 'every' | 'color'>;

// Left of the path is left on paper.
const onPaper = ([x, y, z]: Place): [number, number] => [-x + ALONG * z, -y - RISE * z];

function sketchOf(laid: LaidLook, model: KeptModel | null): { faces: Face[]; box: string } {
  const sides = laid.both ? [1, -1] : [1];
  const faces = sides.flatMap((side) =>
    laid.kind === 'profile' ? sweptFaces(laid, side) : piecesFaces(laid, side, model),
  );
  faces.sort((a, b) => b.depth - a.depth);
  const places = faces.flatMap(({ corners }) => corners.map(onPaper));
  if (places.length === 0) return { faces, box: '0 0 1 1' };
  const [xs, ys] = [0, 1].map((k) => places.map((place) => place[k]));
  const [left, top] = [Math.min(...xs), Math.min(...ys)];
  const [width, height] = [Math.max(...xs) - left, Math.max(...ys) - top];
  const room = 0.06 * Math.max(width, height, 0.1);
  return { faces, box: [left - room, top - room, width + 2 * room, height + 2 * room].join(' ') };
}

function sweptFaces({ profile, ring, offset }: LaidLook, side: number): Face[] {
  const points = profile.map(([x, y]) => [side * (x + offset.side), y + offset.rise] as const);
  const edges = ring ? [...points, points[0]] : points;
  const faces = edges.slice(1).map(([bx, by], i): Face => {
    const [ax, ay] = edges[i];
    const up = Math.abs(bx - ax) / (Math.hypot(bx - ax, by - ay) || 1);
    return {
      corners: [
        [ax, ay, 0],
        [bx, by, 0],
        [bx, by, LONG],
        [ax, ay, LONG],
      ],
      shade: 0.75 + 0.3 * up,
      depth: LONG / 2 - (ay + by) / 2,
    };
  });
  return ring
    ? [...faces, { corners: points.map(([x, y]): Place => [x, y, 0]), shade: 0.9, depth: -10 }]
    : faces;
}

function piecesFaces({ every, offset }: LaidLook, side: number, model: KeptModel | null): Face[] {
  const [low, high] = model
    ? [model.facts.low, model.facts.high]
    : [
        [-0.2, 0, -0.2],
        [0.2, 0.5, 0.2],
      ];
  const count = Math.min(12, Math.floor(LONG / every) + 1);
  return Array.from({ length: count }, (_, i) => {
    const z = i * every;
    const [x0, x1] = [low[0] + side * offset.side, high[0] + side * offset.side];
    const [y0, y1] = [low[1] + offset.rise, high[1] + offset.rise];
    const [z0, z1] = [z + low[2], z + high[2]];
    const face = (shade: number, ...corners: Place[]): Face => ({ corners, shade, depth: z - shade });
    return [
      face(0.85, [x0, y0, z0], [x1, y0, z0], [x1, y1, z0], [x0, y1, z0]),
      face(0.7, [x0, y0, z0], [x0, y0, z1], [x0, y1, z1], [x0, y1, z0]),
      face(1.05, [x0, y1, z0], [x1, y1, z0], [x1, y1, z1], [x0, y1, z1]),
    ];
  }).flat();
}
