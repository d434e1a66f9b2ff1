/** What a pace has to know of the path it runs on. */
export interface Track {
  /** Metres, above 0. */
  readonly length: number;
  readonly closed: boolean;
}
