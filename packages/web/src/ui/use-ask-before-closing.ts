import { useEffect } from 'react';

/** Lets the browser ask before the window is closed, as long as something would be lost by it. */
export function useAskBeforeClosing(asks: boolean): void {
  useEffect(() => {
    if (!asks) return;
    const ask = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [asks]);
}
