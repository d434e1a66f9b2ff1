import type { Basis, JoinEnds, Vec3 } from '@fleet-rail/core';

/** Something done to a path as a whole, with its settings. It is shown before it is accepted. */
export type Operation = { readonly path: string } & (
  | { readonly kind: 'smooth'; readonly strength: number }
  /** Arcs of a radius at some corners of straight runs; at all of them where none is chosen. */
  | { readonly kind: 'corners'; readonly points: readonly number[]; readonly radius: number }
  | { readonly kind: 'thin'; readonly tolerance: number }
  | { readonly kind: 'resample'; readonly count: number }
  | { readonly kind: 'basis'; readonly basis: Basis; readonly tolerance: number }
  | {
      readonly kind: 'move';
      readonly points: readonly number[];
      readonly by: Vec3;
      /** Degrees about the vertical, to the left; then the path's far end up. */
      readonly turnDeg: number;
      readonly tiltDeg: number;
      readonly scale: number;
    }
  | { readonly kind: 'lift'; readonly points: readonly number[]; readonly height: number }
  | { readonly kind: 'level'; readonly height: number }
  | { readonly kind: 'drape'; readonly height: number; readonly tolerance: number }
  | { readonly kind: 'mirror'; readonly axis: 0 | 1 | 2; readonly at: number; readonly copy: boolean }
  | { readonly kind: 'offset'; readonly side: number; readonly tolerance: number; readonly copy: boolean }
  | { readonly kind: 'reverse'; readonly turnRiders: boolean }
  | { readonly kind: 'first'; readonly index: number; readonly startRiders: boolean }
  | { readonly kind: 'open'; readonly at: number }
  | { readonly kind: 'unlink' }
  | { readonly kind: 'close'; readonly bridge: boolean; readonly tension: number }
  | { readonly kind: 'split'; readonly at: number }
  | ({ readonly kind: 'join'; readonly other: string; readonly tension: number } & {
      readonly ends: JoinEnds;
    })
  | { readonly kind: 'transform' }
);

export type OperationKind = Operation['kind'];

/** How each operation is called, and what it says it does. */
export const OPERATIONS: Record<OperationKind, { readonly name: string; readonly does: string }> = {
  smooth: { name: 'Smooth', does: 'Smooths the bends; the ends stay.' },
  corners: { name: 'Round corners', does: 'Corners of straight runs become arcs of a radius, exactly.' },
  thin: { name: 'Thin out', does: 'Removes points while the curve stays within the tolerance.' },
  resample: { name: 'Space evenly', does: 'Puts the points at even distances.' },
  basis: { name: 'Change basis', does: 'The same curve, drawn from other points.' },
  move: { name: 'Move, turn, scale', does: 'Around the middle of the path or of the chosen points.' },
  lift: { name: 'Lift', does: 'Raises the path, or the chosen points, by a height.' },
  level: { name: 'Level', does: 'Brings all points to one height.' },
  drape: { name: 'Drape on ground', does: 'Lays the path over the ground, at a height above it.' },
  mirror: { name: 'Mirror', does: 'Left becomes right.' },
  offset: {
    name: 'Parallel path',
    does: 'A new path to the left of this one; negative distances go to the right.',
  },
  reverse: { name: 'Reverse', does: 'The same curve in the other direction.' },
  first: { name: 'Begin here', does: 'The loop begins at the chosen point.' },
  open: { name: 'Open', does: 'Opens the loop at a point.' },
  unlink: { name: 'Delete last segment', does: 'Deletes the segment from the last point to the first.' },
  close: { name: 'Close', does: 'Joins the end to the start.' },
  split: { name: 'Split', does: 'Two paths, cut at a point.' },
  join: { name: 'Join', does: 'Joins two paths with a smooth bridge.' },
  transform: {
    name: 'Apply transform',
    does: 'Applies the path’s move, turn and scale to its points.',
  },
};
