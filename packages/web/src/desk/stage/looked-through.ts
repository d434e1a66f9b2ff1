import { cameraAt, type Rider } from '@fleet-rail/core';
import type { DeskState } from '../desk-store';

/** The rider whose camera the view is through: the chosen one, else the one the cuts say, else the first. */
export function lookedThrough({
  shot,
  through,
  frame,
}: Pick<DeskState, 'shot' | 'through' | 'frame'>): Rider | null {
  const id = through ?? cameraAt(shot.cuts, frame);
  const cameras = shot.riders.filter(({ camera }) => camera !== null);
  return cameras.find((rider) => rider.id === id) ?? cameras[0] ?? null;
}
