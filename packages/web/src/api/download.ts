import { Cancelled, Refusal } from './request';

/**
 * Fetches a file and hands it to the browser to save, so that a refusal can be shown instead.
 *
 * @param signal ends it, here and on the server
 * @throws Refusal with the server's sentence
 */
export async function downloadFile(url: string, signal?: AbortSignal): Promise<void> {
  const response = await whole(() => fetch(url, { signal }), signal);
  if (!response.ok) {
    const body = (await response.json().catch(() => ({}))) as { message?: string };
    throw new Refusal(body.message ?? `The server answered ${response.status}.`, response.status);
  }
  const name = /filename\*=UTF-8''([^;]+)/.exec(response.headers.get('Content-Disposition') ?? '')?.[1];
  keep(name ? decodeURIComponent(name) : 'file', await whole(() => response.blob(), signal));
}

/** Hands a text that was written here to the browser to keep. */
export function saveText(name: string, text: string): void {
  keep(name, new Blob([text], { type: 'text/plain' }));
}

/** Hands a file that was made here to the browser to keep. */
export function keep(name: string, content: Blob): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(content);
  link.download = name;
  link.click();
  // The browser has begun to read it by the next turn of events, not before.
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}

/** Body of a response, read to its end; an error names why it could not be. */
async function whole<T>(read: () => Promise<T>, signal: AbortSignal | undefined): Promise<T> {
  try {
    return await read();
  } catch {
    if (signal?.aborted) throw new Cancelled('Cancelled; nothing was made.', 0);
    throw new Refusal(
      'The server stopped before this file was whole; nothing of the shot was lost. Download it again once the server is back.',
      0,
    );
  }
}
