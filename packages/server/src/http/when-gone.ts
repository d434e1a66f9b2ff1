import type { Response } from 'express';

/** Aborted when the one who asked goes away before all is sent. */
export function whenGone(response: Response): AbortSignal {
  const gone = new AbortController();
  response.once('close', () => gone.abort());
  return gone.signal;
}
