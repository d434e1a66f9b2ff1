import { useEffect, useMemo, type RefObject } from 'react';
import type { DeskState, DeskStore } from './desk-store';

/** Milliseconds that the hand has to rest, and after which changes are delivered all the same. */
const REST = 120;
const LONGEST = 1_000;

/**
 * The desk as the step panel sees it. While something is dragged on the stage or in the diagram the panel gets
 * changes when the hand rests, and played frames when they stop: the page's time belongs to the drag. Reads always
 * give the newest state.
 */
export class DeferredStore {
  readonly store: DeskStore;
  private readonly listeners = new Set<() => void>();
  private held = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private since = 0;

  constructor(private readonly desk: DeskStore) {
    this.store = {
      ...desk,
      subscribe: (listener) => {
        let before = desk.getState();
        const tell = () => {
          const [now, last] = [desk.getState(), before];
          before = now;
          if (now !== last) listener(now, last);
        };
        this.listeners.add(tell);
        return () => this.listeners.delete(tell);
      },
    };
  }

  /** Passes changes on until that is stopped. */
  follow(): () => void {
    const stop = this.desk.subscribe((state, before) => {
      if (state.playing && isSameButForFrame(state, before)) return;
      if (this.held) this.tellLater();
      else this.tell();
    });
    return () => {
      clearTimeout(this.timer);
      stop();
    };
  }

  hold(): void {
    this.held = true;
  }

  release(): void {
    this.held = false;
    if (this.timer !== undefined) this.tellLater();
  }

  private tellLater(): void {
    if (this.timer === undefined) this.since = performance.now();
    clearTimeout(this.timer);
    const left = LONGEST - (performance.now() - this.since);
    this.timer = setTimeout(() => this.tell(), Math.max(0, Math.min(REST, left)));
  }

  private tell(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
    for (const listener of [...this.listeners]) listener();
  }
}

function isSameButForFrame(state: DeskState, before: DeskState): boolean {
  return (Object.keys(state) as (keyof DeskState)[]).every(
    (key) => key === 'frame' || state[key] === before[key],
  );
}

/** A {@link DeferredStore} that is held while the pointer is down in a part of the page. */
export function useDeferredStore(desk: DeskStore, work: RefObject<HTMLElement | null>): DeskStore {
  const calm = useMemo(() => new DeferredStore(desk), [desk]);
  useEffect(() => {
    const down = (event: Event) => {
      if (event.target instanceof Node && work.current?.contains(event.target)) calm.hold();
    };
    const up = () => calm.release();
    const stop = calm.follow();
    const released = ['pointerup', 'pointercancel', 'keydown'];
    window.addEventListener('pointerdown', down, true);
    for (const kind of released) window.addEventListener(kind, up, true);
    return () => {
      stop();
      window.removeEventListener('pointerdown', down, true);
      for (const kind of released) window.removeEventListener(kind, up, true);
    };
  }, [calm, work]);
  return calm.store;
}
