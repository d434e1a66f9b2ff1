import type { Basis, Handles } from '@fleet-rail/core';

export const BASIS_NAMES: Record<Basis, string> = {
  bezier: 'Bézier',
  bspline: 'B-spline',
  nurbs: 'NURBS',
  through: 'Through points',
  polyline: 'Straight runs',
};

export const HANDLES_NAMES: Record<Handles, string> = {
  corner: 'Corner',
  smooth: 'Smooth',
  symmetric: 'Symmetric',
  auto: 'Auto',
};
