import type { Shot } from '@fleet-rail/core';

/**
 * A change to a shot: the document before to the document after.
 *
 * @param begun the document as it was when the gesture began that the change belongs to
 */
export type Edit = (shot: Shot, begun?: Shot) => Shot;
