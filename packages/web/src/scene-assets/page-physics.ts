import { physicsFor, type Physics, type Shot } from '@fleet-rail/core';

let physics: Physics | null = null;

/** Has rigid bodies at hand in this thread once a shot needs them, for what is baked here. */
export async function loadPagePhysics(shot: Pick<Shot, 'riders'>): Promise<void> {
  physics ??= await physicsFor(shot);
}

/** Rigid bodies; null where no shot has needed them yet. */
export const pagePhysics = (): Physics | null => physics;
