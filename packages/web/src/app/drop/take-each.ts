import { sentenceOf } from '../../api/request';
import { notifyRefused } from '../../ui/notices';
import type { DeskStore } from '../../state/desk-store';

/** Adds things one after another; refusals are reported together at the end. */
export async function takeEach<T>(things: readonly T[], take: (thing: T) => Promise<void>): Promise<void> {
  const refused: string[] = [];
  for (const thing of things) await take(thing).catch((error: unknown) => refused.push(sentenceOf(error)));
  notifyRefused(refused, things.length);
}

/** Settles when nothing of a file is asked any more. */
export function answered(desk: DeskStore): Promise<void> {
  return new Promise((resolve) => {
    if (desk.getState().importing === null) return resolve();
    const stop = desk.subscribe(({ importing }) => {
      if (importing !== null) return;
      stop();
      resolve();
    });
  });
}
