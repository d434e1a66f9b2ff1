import { useEffect } from 'react';
import { useNavigate } from 'react-router';
import type { DeskStore } from '../../state/desk-store';
import { SHORTCUTS } from './shortcuts';

/** The desk's shortcuts; they rest while something is typed or a dialog is open. */
export function useDeskKeys(desk: DeskStore, shotId: string): void {
  const navigate = useNavigate();
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent) => {
      if (event.altKey || document.querySelector('[role=dialog]')) return;
      const target = event.target as HTMLElement;
      const press = {
        key: event.key,
        shift: event.shiftKey,
        ctrl: event.ctrlKey || event.metaKey,
        typing: target.matches('input, textarea, select, [contenteditable]'),
        onControl: target.matches('button, a, [role=button], [role=row], [role=option], [role=radio]'),
        desk,
        shotId,
        navigate,
      };
      if (SHORTCUTS.some(({ act }) => act?.(press))) event.preventDefault();
    };
    document.addEventListener('keydown', onKeyDown);
    return () => document.removeEventListener('keydown', onKeyDown);
  }, [desk, navigate, shotId]);
}
