import { useEffect } from 'react';
import type { DeskStore } from './desk-store';

/**
 * Plays the shot. In real time the frame follows the clock and frames are dropped where drawing
 * is slow; otherwise every frame is shown, one a screen refresh at most and never faster than the rate.
 */
export function usePlayback(desk: DeskStore): void {
  useEffect(() => {
    let request = 0;
    let startTime = 0;
    let startFrame = 0;
    let shown = 0;
    const begin = (now: number) => {
      startTime = now;
      startFrame = desk.getState().frame;
      shown = startFrame;
    };
    const tick = (now: number) => {
      const { playing, everyFrame, shot, frame } = desk.getState();
      if (!playing) return;
      request = requestAnimationFrame(tick);
      if (frame !== shown) begin(now);
      const { first, last } = shot.range;
      const count = last - first + 1;
      const elapsed = Math.floor(((now - startTime) / 1000) * shot.fps + 1e-6);
      if (everyFrame && elapsed < 1) return;
      let next = everyFrame ? frame + 1 : startFrame + elapsed;
      if (next > last && !shot.loop) {
        desk.getState().set({ frame: last, playing: false });
        return;
      }
      next = first + ((next - first) % count);
      if (next === frame) return;
      shown = next;
      desk.getState().set({ frame: next });
      if (everyFrame) begin(now);
    };
    const stop = desk.subscribe(({ playing }, before) => {
      if (playing === before.playing) return;
      cancelAnimationFrame(request);
      if (!playing) return;
      const { frame, shot } = desk.getState();
      if (frame >= shot.range.last) desk.getState().set({ frame: shot.range.first });
      request = requestAnimationFrame((now) => {
        begin(now);
        tick(now);
      });
    });
    return () => {
      cancelAnimationFrame(request);
      stop();
    };
  }, [desk]);
}
