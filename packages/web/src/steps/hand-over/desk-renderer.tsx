import { useEffect, useRef } from 'react';
import { useNavigate } from 'react-router';
import { usePool } from '../../api/pool';
import { useRenderer } from '../../workers/pictures/use-renderer';
import { notify } from '../../ui/notices';
import { useDesk } from '../../state/desk-store';
import { useAskBeforeClosing } from '../../ui/use-ask-before-closing';

/**
 * Renders pictures in a thread of the desk, at any step, unless that is left to others: those of its shot first, then
 * those of other shots without a renderer.
 */
export function DeskRenderer({ shotId }: { shotId: string }) {
  const drawsHere = useDesk((state) => state.drawsHere);
  const { data } = usePool();
  const drawn = data?.jobs.filter(({ state }) => state === 'drawing') ?? [];
  useRenderer(drawn.length > 0 && drawsHere, 'This desk', 'desk', shotId);
  const others = data?.renderers.some(({ kind }) => kind !== 'desk') ?? false;
  const own = drawn.find((job) => job.shotId === shotId);
  useFarewell(drawsHere && !others ? (own?.fileName ?? null) : null);
  return null;
}

/** Says when the desk is left that it is the one that draws a file; the browser asks before the window is closed. */
function useFarewell(fileName: string | null): void {
  const navigate = useNavigate();
  const latest = useRef({ fileName, navigate });
  useEffect(() => {
    latest.current = { fileName, navigate };
  });
  useAskBeforeClosing(fileName !== null);
  // Only when the desk goes: the router's own function is another at each step.
  useEffect(
    () => () => {
      const { fileName: unfinished, navigate: go } = latest.current;
      if (unfinished === null) return;
      const text = `“${unfinished}” is not finished. It continues when you return, or in another renderer.`;
      notify('done', text, { name: 'Open the render pool', run: () => void go('/pool') });
    },
    [],
  );
}
