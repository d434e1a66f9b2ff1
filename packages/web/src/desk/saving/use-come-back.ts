import { useEffect } from 'react';
import { useAutosave } from './save-context';

/** When the tab is come back to, looks whether the shot was saved elsewhere meanwhile. */
export function useComeBack(): void {
  const autosave = useAutosave();
  useEffect(() => {
    const onVisible = () => {
      if (document.visibilityState === 'visible') void autosave.lookForNewer();
    };
    document.addEventListener('visibilitychange', onVisible);
    window.addEventListener('focus', onVisible);
    return () => {
      document.removeEventListener('visibilitychange', onVisible);
      window.removeEventListener('focus', onVisible);
    };
  }, [autosave]);
}
