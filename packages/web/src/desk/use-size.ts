import { useEffect, useState, type RefObject } from 'react';

/** The inner size of an element, pixels, kept up. */
export function useSize(
  element: RefObject<HTMLElement | null>,
  start: { readonly width: number; readonly height: number },
): { readonly width: number; readonly height: number } {
  const [size, setSize] = useState(start);
  useEffect(() => {
    if (element.current === null) return;
    const sizes = new ResizeObserver(([{ contentRect }]) =>
      setSize({ width: contentRect.width, height: contentRect.height }),
    );
    sizes.observe(element.current);
    return () => sizes.disconnect();
  }, [element]);
  return size;
}
