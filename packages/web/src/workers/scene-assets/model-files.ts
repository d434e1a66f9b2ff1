import { readModelDocument } from '@fleet-rail/core/models';

export type Model = Awaited<ReturnType<typeof readModelDocument>>;

/** Models by their addresses, each fetched and read once. */
export class ModelFiles {
  private readonly read = new Map<string, Promise<Model>>();

  /** @throws Error where it is not there or cannot be read */
  at(url: string, name: string): Promise<Model> {
    const cached = this.read.get(url);
    if (cached) return cached;
    const reading = fetch(url).then(async (answer) => {
      if (!answer.ok) throw new Error(`${name} is not there (${answer.status}).`);
      return readModelDocument(new Uint8Array(await answer.arrayBuffer()), name);
    });
    this.read.set(url, reading);
    // Not kept, so that the next look tries again.
    reading.catch(() => this.read.delete(url));
    return reading;
  }
}
