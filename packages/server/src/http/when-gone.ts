import type { Response } from 'express';

/** Aborted when the one who asked goes away before all is sent. */
export function whenGone(response: Response): AbortSignal {
  const gone = new AbortController();
  // Whoever leaves while the body of a request is still taken in has gone before anybody listens.
  if (response.destroyed) gone.abort();
  else response.once('close', () => gone.abort());
  return gone.signal;
}
