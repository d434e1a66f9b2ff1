import type { Response } from 'express';

/** Aborted when the one who asked goes away before all is sent. */
export function whenGone(response: Response): AbortSignal {
  const gone = new AbortController();
  // A client may leave while its body is still read, before anyone listens.
  if (response.destroyed) gone.abort();
  else response.once('close', () => gone.abort());
  return gone.signal;
}
