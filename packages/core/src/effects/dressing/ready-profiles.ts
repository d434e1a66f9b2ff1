import type { Dressing } from '../../document/shot-dressing.js';

/** A profile to begin with, and its usual settings. */
export interface ReadyProfile extends Partial<
  Pick<Dressing, 'ring' | 'both' | 'offset' | 'ground' | 'color'>
> {
  readonly name: string;
  readonly profile: readonly (readonly [number, number])[];
}

const circle = (radius: number, sides: number, y: number): [number, number][] =>
  Array.from({ length: sides }, (_, i) => {
    const angle = (2 * Math.PI * i) / sides;
    return [radius * Math.cos(angle), y + radius * Math.sin(angle)];
  });

/** Dimensions of the presets follow the things they are named after. */
export const READY_PROFILES: readonly ReadyProfile[] = [
  {
    name: 'Rail',
    ring: true,
    both: true,
    offset: { side: 0.7175, rise: 0 },
    color: '#77706a',
    profile: [
      [0.035, 0.15],
      [-0.035, 0.15],
      [-0.035, 0.115],
      [-0.009, 0.1],
      [-0.009, 0.03],
      [-0.07, 0.015],
      [-0.07, 0],
      [0.07, 0],
      [0.07, 0.015],
      [0.009, 0.03],
      [0.009, 0.1],
      [0.035, 0.115],
    ],
  },
  {
    name: 'Road',
    ground: true,
    color: '#7d7a74',
    profile: [
      [3.4, -0.12],
      [3, 0],
      [0, 0.06],
      [-3, 0],
      [-3.4, -0.12],
    ],
  },
  {
    name: 'River',
    color: '#6f97a6',
    profile: [
      [2, 0],
      [-2, 0],
    ],
  },
  { name: 'Cable', ring: true, color: '#3d4348', profile: circle(0.02, 12, 0) },
  {
    name: 'Ribbon',
    color: '#b5574a',
    profile: [
      [0.25, 0],
      [-0.25, 0],
    ],
  },
  {
    name: 'Plank fence',
    ring: true,
    offset: { side: 2.2, rise: 0.75 },
    color: '#8a6f4e',
    profile: [
      [0.015, 0.08],
      [-0.015, 0.08],
      [-0.015, -0.08],
      [0.015, -0.08],
    ],
  },
];
