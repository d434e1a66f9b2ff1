/** Refusal of the server: its own sentence, and the status. */
export class Refusal extends Error {
  override readonly name = 'Refusal';

  constructor(
    message: string,
    /** 0 where the server could not be reached. */
    readonly status: number,
  ) {
    super(message);
  }
}

/** Ended by the one who asked. */
export class Cancelled extends Refusal {}

/**
 * One request to the server.
 *
 * @throws Refusal with a sentence to show, also where the server is not there
 */
export async function request<T>(
  method: string,
  path: string,
  body?: unknown,
  signal?: AbortSignal,
): Promise<T> {
  const isForm = body instanceof FormData;
  let response: Response;
  try {
    response = await fetch(path, {
      method,
      body: body === undefined ? undefined : isForm ? body : JSON.stringify(body),
      signal,
      headers: body === undefined || isForm ? undefined : { 'Content-Type': 'application/json' },
    });
  } catch {
    if (signal?.aborted && (signal.reason as DOMException).name === 'AbortError')
      throw new Cancelled('Cancelled. Nothing was changed.', 0);
    throw new Refusal('The server does not answer. Is it still running?', 0);
  }
  if (!response.ok) throw new Refusal(await sentence(response), response.status);
  return (response.status === 204 ? undefined : await response.json()) as T;
}

async function sentence(response: Response): Promise<string> {
  try {
    const { message } = (await response.json()) as { message?: string | string[] };
    if (Array.isArray(message)) return message.join(' ');
    if (message) return message;
  } catch {
    // Not JSON: the status has to do.
  }
  return `The server answered ${response.status}.`;
}

/** The sentence of any error, for a person. */
export function sentenceOf(error: unknown): string {
  return error instanceof Error ? error.message : String(error);
}
