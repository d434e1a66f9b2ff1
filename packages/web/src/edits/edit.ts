import type { Shot } from '@fleet-rail/core';

/** A change to a shot: the document before to the document after. */
export type Edit = (shot: Shot) => Shot;
