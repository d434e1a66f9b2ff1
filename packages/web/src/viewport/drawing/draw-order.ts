/**
 * Draw order on the stage, lowest first. Coplanar and transparent things have fixed orders here: ordered by distance
 * they would change with the view, and flicker.
 */
export const ORDER = {
  sky: -20,
  ground: -10,
  groundShadow: -9,
  patches: -5,
  ribbon: 1,
  plate: 2,
  rim: 3,
  chalk: 4,
  curtain: 5,
  band: 6,
  sights: 7,
  curve: 9,
  milestones: 9,
  plumb: 10,
  found: 10,
  table: 11,
  spray: 12,
  bright: 12,
  brightPoints: 13,
  rig: 20,
} as const;
