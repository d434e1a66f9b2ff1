import { parseShot, ShotError, type Shot } from '@fleet-rail/core';

/** Drafts of an earlier version get defaults for new fields; one that is refused stays as it is. */
export function completed(shot: Shot): Shot {
  try {
    return parseShot(shot);
  } catch (error) {
    if (!(error instanceof ShotError)) throw error;
    return shot;
  }
}
