import { parseShot, type Shot } from '@fleet-rail/core/shots';
import { sketchShot } from '../shots/shot-sketch.js';

/** The columns of a stored document. */
export interface ShotColumns {
  readonly name: string;
  /** The document with all defaults, JSON. */
  readonly document: string;
  /** The drawing on the shot's card, JSON. */
  readonly sketch: string;
}

/** A document that was read and checked, in its stored form. */
export class CheckedShot {
  constructor(readonly columns: ShotColumns) {}

  /**
   * Checks a document, unless that was done already.
   *
   * @throws ShotError where it is refused
   */
  static of(raw: unknown): CheckedShot {
    return raw instanceof CheckedShot ? raw : CheckedShot.from(parseShot(raw));
  }

  /** Takes a document that needs no check. */
  static from(shot: Shot): CheckedShot {
    return new CheckedShot(columnsOf(shot));
  }
}

/** Serialises a document for storage. */
export function columnsOf(shot: Shot): ShotColumns {
  return { name: shot.name, document: JSON.stringify(shot), sketch: JSON.stringify(sketchShot(shot)) };
}
