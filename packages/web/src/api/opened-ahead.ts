import { request } from './request';
import type { KeptShot } from './shots';

let ahead: { readonly id: string; readonly answer: Promise<KeptShot> } | null = null;

/** Asks for the shot of the page's address while the code that shows it is still on its way. */
export function openAhead(id: string): void {
  ahead = { id, answer: request<KeptShot>('GET', `/api/shots/${id}`) };
  // The one that takes it handles the error; nobody may.
  ahead.answer.catch(() => undefined);
}

/** Shots requested ahead, for the first that wants them: later they may be out of date. */
export function takeAhead(id: string): Promise<KeptShot> | null {
  const taken = ahead?.id === id ? ahead.answer : null;
  ahead = null;
  return taken;
}
