/** Something a check has to say about a shot. */
export interface Finding {
  readonly severity: 'error' | 'attention';
  /** Where in the document, as in `riders[0].hitch`. */
  readonly at: string;
  /** One sentence: what is so, and what follows from it. */
  readonly message: string;
}
