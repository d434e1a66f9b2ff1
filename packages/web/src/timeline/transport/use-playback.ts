import { useEffect } from 'react';
import type { DeskStore } from '../../state/desk-store';
import { playedFrame } from './played-frame';

/**
 * Plays the shot. In real time the frame follows the clock and frames are dropped where drawing
 * is slow; otherwise every frame is shown, one a screen refresh at most and never faster than the rate.
 */
export function usePlayback(desk: DeskStore): void {
  useEffect(() => {
    let request = 0;
    let begunAt = 0;
    let begunFrame = 0;
    let shown = 0;
    const begin = (now: number) => {
      begunAt = now;
      begunFrame = shown = desk.getState().frame;
    };
    const tick = (now: number) => {
      const { playing, everyFrame, shot, frame, set } = desk.getState();
      if (!playing) return;
      // Somebody else moved the playhead: go on from there.
      if (frame !== shown) begin(now);
      const elapsed = (now - begunAt) / 1000;
      const due = !everyFrame || elapsed * shot.fps >= 1 - 1e-6;
      const next = due
        ? playedFrame(begunFrame, everyFrame ? 1 / shot.fps : elapsed, shot.fps, shot.range, shot.loop)
        : frame;
      if (next === null) {
        set({ frame: shot.range.last, playing: false });
        return;
      }
      if (next !== frame) {
        shown = next;
        set({ frame: next });
        if (everyFrame) begin(now);
      }
      request = requestAnimationFrame(tick);
    };
    const stop = desk.subscribe(({ playing }, before) => {
      if (playing === before.playing) return;
      cancelAnimationFrame(request);
      if (!playing) return;
      const { frame, shot, set } = desk.getState();
      if (frame >= shot.range.last) set({ frame: shot.range.first });
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
