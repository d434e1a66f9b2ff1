import { parseShot, ShotError, type Shot } from '@fleet-rail/core';

/** What an earlier version of the page kept has defaults for what is new; one that is refused stays as it is. */
export function completed(shot: Shot): Shot {
  try {
    return parseShot(shot);
  } catch (error) {
    if (!(error instanceof ShotError)) throw error;
    return shot;
  }
}
