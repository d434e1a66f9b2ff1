import { useEffect, useState, type RefObject } from 'react';

/** Pixels before the edge at which what is scrolled to is begun, so that it is there when it is seen. */
const AHEAD = 240;

/** Whether an element has ever been in view, or near it: what costs much is only then worked out. */
export function useComeIntoView(element: RefObject<Element | null>): boolean {
  const [come, setCome] = useState(false);
  useEffect(() => {
    if (come || element.current === null) return;
    const views = new IntersectionObserver(
      (entries) => {
        if (entries.some(({ isIntersecting }) => isIntersecting)) setCome(true);
      },
      // It is scrolled in a panel of its own, whose edge is the one that counts.
      { rootMargin: `${AHEAD}px`, scrollMargin: `${AHEAD}px` } as IntersectionObserverInit,
    );
    views.observe(element.current);
    return () => views.disconnect();
  }, [element, come]);
  return come;
}
