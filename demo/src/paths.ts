import { newShot, type Shot, type Vec3 } from '@fleet-rail/core';

/** Height of the lane where it crosses itself, metres. */
export const BRIDGE_HEIGHT = 3.6;

/** The lane: a figure of eight that passes under its own bridge, by a curve's own formula. */
function lanePoints(): { position: Vec3; handles: 'auto' }[] {
  const count = 16;
  return Array.from({ length: count }, (_, i) => {
    const t = (2 * Math.PI * i) / count;
    const fromBridge = (t - 1.5 * Math.PI) / 0.62;
    const height = BRIDGE_HEIGHT * Math.exp(-(fromBridge * fromBridge));
    const position: Vec3 = [32 * Math.cos(t), height < 0.02 ? 0 : height, 19 * Math.sin(2 * t)];
    return { position: position.map((v) => Math.round(v * 1000) / 1000 + 0) as Vec3, handles: 'auto' };
  });
}

/** The paths of Quillfen Orchard. */
export function orchardPaths(): Shot['paths'] {
  const through = (points: Vec3[]) => points.map((position) => ({ position }));
  return newShot({
    name: 'paths',
    paths: [
      {
        id: 'lane',
        name: 'Lane',
        basis: 'bezier',
        closed: true,
        points: lanePoints(),
        marks: [
          { id: 'barn', name: 'Barn', distance: 2 },
          { id: 'rows', name: 'Rows', distance: 106 },
        ],
      },
      {
        id: 'row',
        name: 'Row walk',
        basis: 'through',
        closed: true,
        points: through([
          [-28, 0, 0.4],
          [-23, 0, -1],
          [-16, 0, -1.3],
          [-10, 0, -0.6],
          [-9, 0, 0.9],
          [-16, 0, 1.2],
          [-23, 0, 1.3],
          [-27, 0, 1.5],
        ]),
      },
      {
        id: 'sky',
        name: 'Kestrel loop',
        basis: 'through',
        closed: true,
        points: through([
          [26, 9, -14],
          [30, 11, 8],
          [6, 13, 20],
          [-22, 10, 16],
          [-30, 8, -10],
          [-4, 12, -20],
        ]),
      },
      {
        id: 'survey',
        name: 'Survey line',
        basis: 'through',
        points: through([
          [-42, 7, 24],
          [-20, 6, 22],
          [4, 8, 25],
          [26, 7, 22],
          [40, 9, 12],
        ]),
      },
      {
        id: 'chute',
        name: 'Chute',
        basis: 'polyline',
        points: through([
          [45, 2.9, -18.5],
          [45, 0.5, -9.5],
          [45, 0.35, -6.8],
        ]),
      },
    ],
  }).paths;
}
