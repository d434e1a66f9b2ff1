import { useCallback, useState } from 'react';

/** Pixels before the edge at which what is scrolled to is begun, so that it is there when it is seen. */
const AHEAD = 240;

/**
 * Whether an element has ever been in view, or near it: what costs much is only then brought in.
 *
 * @returns a ref for the element, and whether
 */
export function useComeIntoView(): [(element: Element | null) => (() => void) | undefined, boolean] {
  const [come, setCome] = useState(false);
  const watch = useCallback((element: Element | null) => {
    if (element === null) return undefined;
    const views = new IntersectionObserver(
      (entries) => {
        if (!entries.some(({ isIntersecting }) => isIntersecting)) return;
        views.disconnect();
        setCome(true);
      },
      // It scrolls in its own panel, whose edge is the one that counts.
      { rootMargin: `${AHEAD}px`, scrollMargin: `${AHEAD}px` } as IntersectionObserverInit,
    );
    views.observe(element);
    return () => views.disconnect();
  }, []);
  return [watch, come];
}
