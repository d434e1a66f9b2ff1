import { useEffect } from 'react';
import { useAutosave } from './save-context';

/** Interval at which a visible desk asks whether the shot was saved elsewhere. */
const EVERY_MS = 3_000;

/** Looks whether the shot was saved elsewhere: every few seconds, and when the tab is come back to. */
export function useComeBack(): void {
  const autosave = useAutosave();
  useEffect(() => {
    const onVisible = () => {
      if (document.visibilityState === 'visible') void autosave.lookForNewer();
    };
    document.addEventListener('visibilitychange', onVisible);
    window.addEventListener('focus', onVisible);
    const asking = setInterval(() => {
      if (document.visibilityState === 'visible') void autosave.lookForSaves();
    }, EVERY_MS);
    return () => {
      clearInterval(asking);
      document.removeEventListener('visibilitychange', onVisible);
      window.removeEventListener('focus', onVisible);
    };
  }, [autosave]);
}
