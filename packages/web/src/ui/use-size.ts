import { useEffect, useState, type RefObject } from 'react';

/** Tells the inner size of an element, pixels, now and whenever it changes; answers how to stop. */
export function observeSize(element: Element, onSize: (width: number, height: number) => void): () => void {
  const sizes = new ResizeObserver(([{ contentRect }]) => onSize(contentRect.width, contentRect.height));
  sizes.observe(element);
  return () => sizes.disconnect();
}

/**
 * The inner size of an element, pixels, kept up.
 *
 * @param shown for an element that comes and goes: whether it is there
 */
export function useSize(
  element: RefObject<Element | null>,
  start: { readonly width: number; readonly height: number },
  shown = true,
): { readonly width: number; readonly height: number } {
  const [size, setSize] = useState(start);
  useEffect(() => {
    if (element.current === null) return;
    return observeSize(element.current, (width, height) => setSize({ width, height }));
  }, [element, shown]);
  return size;
}
