import { smallJob } from './small-job.js';

/** Changes are taken from who is no page of another site. */
const OWN = { 'X-Fleet-Rail': 'faults' };

/** The server's interface as programs use it. */
export class Api {
  constructor(private readonly base: string) {}

  get(path: string): Promise<Response> {
    return fetch(`${this.base}${path}`);
  }

  send(method: string, path: string, body?: object): Promise<Response> {
    const headers = { ...OWN, 'Content-Type': 'application/json' };
    return fetch(`${this.base}${path}`, { method, headers, body: body && JSON.stringify(body) });
  }

  put(path: string, bytes: Uint8Array, type: string): Promise<Response> {
    const headers = { ...OWN, 'Content-Type': type };
    return fetch(`${this.base}${path}`, { method: 'PUT', headers, body: Uint8Array.from(bytes) });
  }

  upload(path: string, name: string, bytes: Uint8Array): Promise<Response> {
    const form = new FormData();
    form.append('file', new Blob([Uint8Array.from(bytes)]), name);
    return fetch(`${this.base}${path}`, { method: 'POST', headers: OWN, body: form });
  }

  /** Adds pictures of 16 × 16 to be drawn, and takes their first run. */
  async takenRun(pictures: number): Promise<{ job: string; run: string; renderer: string }> {
    const renderer = crypto.randomUUID();
    const added = await this.send('POST', '/api/pool/jobs', smallJob(pictures));
    const { id: job } = (await added.json()) as { id: string };
    const claimed = await this.send('POST', '/api/pool/claim', {
      id: renderer,
      name: 'Faults',
      kind: 'window',
      job,
    });
    const { run } = (await claimed.json()) as { run: string };
    return { job, run, renderer };
  }
}
