import { Refusal } from '../../api/request';

/**
 * Fetches a file and hands it to the browser to keep, so that a refusal can be told instead of saved.
 *
 * @throws Refusal with the server's sentence
 */
export async function downloadFile(url: string): Promise<void> {
  let response: Response;
  try {
    response = await fetch(url);
  } catch {
    throw new Refusal('The server does not answer. Is it still running?', 0);
  }
  if (!response.ok) {
    const body = (await response.json().catch(() => ({}))) as { message?: string };
    throw new Refusal(body.message ?? `The server answered ${response.status}.`, response.status);
  }
  const name = /filename\*=UTF-8''([^;]+)/.exec(response.headers.get('Content-Disposition') ?? '')?.[1];
  const link = document.createElement('a');
  link.href = URL.createObjectURL(await response.blob());
  link.download = name ? decodeURIComponent(name) : 'file';
  link.click();
  // The browser has begun to read it by the next turn of events, not before.
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
}
