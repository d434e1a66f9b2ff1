import { useEffect } from 'react';
import { useNavigate } from 'react-router';
import type { DeskStore } from './desk-store';
import { acceptAttaching } from './attach-previews';
import { finishDrawing, takePlaceBack } from './path/drawing';
import { finishEdges } from './path/edge-path';
import { acceptOperation, cancelOperation } from './path/operate';
import { STATIONS } from './stations/stations';

/** The desk's keys; they rest while something is typed or a dialog is open. */
export function useDeskKeys(desk: DeskStore, shotId: string): void {
  const navigate = useNavigate();
  useEffect(() => {
    const onKeyDown = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      const state = desk.getState();
      const { tool, operation, attaching, playing, frame, set, goToFrame, undo, redo } = state;
      if (document.querySelector('[role=dialog]')) return;
      const typing = target.matches('input, textarea, select, [contenteditable]');
      if ((event.ctrlKey || event.metaKey) && !typing) {
        const key = event.key.toLowerCase();
        if (key === 'z') (event.shiftKey ? redo : undo)();
        else if (key === 'y') redo();
        else return;
        event.preventDefault();
        return;
      }
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === 'Escape' && (tool.kind !== 'select' || attaching)) {
        // A pick that belongs to attaching ends alone; the plan stays as it was set up.
        set({ tool: { kind: 'select' }, ...(tool.kind === 'pickStart' ? {} : { attaching: null }) });
        return;
      }
      if (event.key === 'Escape' && operation !== null) {
        cancelOperation(desk);
        return;
      }
      // Enter in a field first takes its number up; one that comes through from there accepts.
      if (typing && event.key === 'Enter' && operation !== null) acceptOperation(desk);
      if (typing) return;
      // A focused control keeps the keys it acts on.
      const onControl = target.matches('button, a, [role=button], [role=row], [role=option], [role=radio]');
      const enters = event.key === 'Enter' && !onControl;
      if (tool.kind === 'draw' && enters) finishDrawing(desk, false);
      else if (tool.kind === 'edges' && enters) finishEdges(desk);
      else if (operation !== null && enters) acceptOperation(desk);
      else if (attaching !== null && enters) acceptAttaching(desk);
      else if (event.key === 'Backspace' && (tool.kind === 'draw' || tool.kind === 'edges'))
        takePlaceBack(desk);
      else if (event.key === ' ' && !onControl) set({ playing: !playing });
      else if (event.key === ',' || event.key === '.') {
        set({ playing: false });
        goToFrame(frame + (event.key === '.' ? 1 : -1));
      } else if (/^[1-7]$/.test(event.key))
        navigate(`/shots/${shotId}/${STATIONS[Number(event.key) - 1].id}`);
      else return;
      event.preventDefault();
    };
    document.addEventListener('keydown', onKeyDown);
    return () => document.removeEventListener('keydown', onKeyDown);
  }, [desk, navigate, shotId]);
}
