/** Facts of the path that a pace needs. */
export interface Track {
  /** Metres, above 0. */
  readonly length: number;
  readonly closed: boolean;
}
