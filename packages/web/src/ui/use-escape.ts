import { useEffect, useRef } from 'react';

/** Closers for Esc, the latest last. */
const open: object[] = [];

/** Closes what is open by Esc; of several that are open, the latest. What has another use for the key prevents its default. */
export function useEscape(onClose: () => void): void {
  const close = useRef(onClose);
  useEffect(() => {
    close.current = onClose;
  });
  useEffect(() => {
    const self = {};
    open.push(self);
    const onKey = (event: KeyboardEvent) => {
      if (event.key !== 'Escape' || event.defaultPrevented || open.at(-1) !== self) return;
      event.preventDefault();
      close.current();
    };
    document.addEventListener('keydown', onKey);
    return () => {
      document.removeEventListener('keydown', onKey);
      open.splice(open.indexOf(self), 1);
    };
  }, []);
}
