import { useEffect, type RefObject } from 'react';
import type { DeskStore } from '../../state/desk-store';
import type { DiagramScales } from './diagram-scales';

/** One notch of the wheel. */
const NOTCH = 0.0016;

/** The wheel zooms time about the pointer, with Shift distance; sideways it moves along. */
export function useDiagramZoom(
  element: RefObject<SVGSVGElement | null>,
  scales: RefObject<DiagramScales | null>,
  desk: DeskStore,
): void {
  useEffect(() => {
    const svg = element.current;
    if (svg === null) return;
    const onWheel = (event: WheelEvent) => {
      const now = scales.current;
      if (now === null) return;
      // The page must not scroll or zoom under it, which only a non-passive listener can prevent.
      event.preventDefault();
      const box = svg.getBoundingClientRect();
      const { diagram, shot, set } = desk.getState();
      const [px, py] = [event.clientX - box.left, event.clientY - box.top];
      // Some browsers turn a wheel with Shift sideways.
      const turn = event.shiftKey && event.deltaY === 0 ? event.deltaX : event.deltaY;
      const factor = Math.exp(turn * NOTCH);
      if (event.shiftKey) {
        const band = now.bands.find(({ top, foot }) => py >= top && py <= foot) ?? now.bands[0];
        if (band === undefined) return;
        set({ diagram: { ...diagram, metres: about(band.y.domain(), band.y.invert(py), factor, 0.1) } });
        return;
      }
      const [from, to] = now.x.domain();
      const moved = (event.deltaX / box.width) * (to - from);
      const frames = about([from + moved, to + moved], now.x.invert(px), factor, 4);
      const { first, last } = shot.range;
      // All of the shot, and some to either side, is as much as there is to see.
      const far = (frames[1] - frames[0]) / (last - first + 1);
      set({ diagram: { ...diagram, frames: far > 4 ? null : frames } });
    };
    svg.addEventListener('wheel', onWheel, { passive: false });
    return () => svg.removeEventListener('wheel', onWheel);
  }, [element, scales, desk]);
}

function about(
  [from, to]: readonly number[],
  still: number,
  factor: number,
  least: number,
): [number, number] {
  const held = Math.max(factor, least / (to - from));
  return [still + (from - still) * held, still + (to - still) * held];
}
