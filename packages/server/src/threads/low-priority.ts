import { readlinkSync } from 'node:fs';
import { constants, setPriority } from 'node:os';

/** Lets the system run this thread after others, so that long work does not slow answers down where cores are few. Linux alone has it by thread. */
export function takeLowPriority(): void {
  try {
    const thread = Number(readlinkSync('/proc/thread-self').split('/').at(-1));
    setPriority(thread, constants.priority.PRIORITY_LOW);
  } catch {
    // Elsewhere all threads have the same.
  }
}
