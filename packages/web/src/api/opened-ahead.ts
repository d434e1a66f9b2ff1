import { request } from './request';
import type { KeptShot } from './shots';

let ahead: { readonly id: string; readonly answer: Promise<KeptShot> } | null = null;

/** Asks for the shot of the page's address while the code that shows it is still on its way. */
export function openAhead(id: string): void {
  ahead = { id, answer: request<KeptShot>('GET', `/api/shots/${id}`) };
  // Whoever takes it hears of it; nobody may.
  ahead.answer.catch(() => undefined);
}

/** What was asked for ahead, for the first who wants it: later it may be out of date. */
export function takeAhead(id: string): Promise<KeptShot> | null {
  const taken = ahead?.id === id ? ahead.answer : null;
  ahead = null;
  return taken;
}
