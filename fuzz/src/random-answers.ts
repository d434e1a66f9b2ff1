import type { Part } from './random-shot.js';
import type { Random } from './random.js';

/**
 * A random shot with clips as blocks, riders that follow others, mirrored cycles, and cues that play, show, blend and
 * cut. Uses its own random numbers, so that the shot under it is the same with and without.
 */
export function withAnswers(shot: Part, random: Random): Part {
  const riders = (shot.riders as Part[]).map((rider, i, all): Part => {
    // Those before it alone: they never wait for one after them.
    const other = i > 0 ? random.of(all.slice(0, i)).id : null;
    const clips = random.rising(-20, random.whole(1, 4), 1, 40).map((frame) => ({
      clip: random.of(['walk', 'stand']),
      frame,
      until: frame + random.size(0.5, 80),
      from: random.of([0, 0.3]),
      to: random.of([null, 0.7]),
      by: random.of(['time', 'distance', 'gait']),
      rate: random.between(-3, 3),
      end: random.of(['repeat', 'hold']),
      blend: random.of([0, 0.25, 5]),
    }));
    const echo = {
      rider: other,
      behind: random.between(-20, 60),
      side: random.between(-3, 3),
      rise: random.between(-3, 3),
      delay: random.between(-10, 30),
    };
    const after = other !== null && random.chance(0.15);
    const cycles = (rider.cycles as Part[]).map((cycle) =>
      random.chance(0.5) ? { ...cycle, mirror: random.of(['wheel_fl', 'body', 'nothing']) } : cycle,
    );
    return {
      ...rider,
      cycles,
      clips: random.chance(0.3) ? clips : [],
      ...(after ? { attachment: null, transformKeys: null, follow: echo } : {}),
    };
  });
  const cues = (shot.cues as Part[]).map((cue): Part => {
    if (!random.chance(0.4)) return cue;
    const kind = random.of(['play', 'show', 'facing', 'attachment', 'camera', 'path']);
    const seen = riders.filter(({ camera }) => camera !== null && camera !== undefined);
    if (kind === 'camera' && seen.length === 0) return cue;
    const does = {
      kind,
      rider: random.of(kind === 'camera' ? seen : riders).id,
      clip: kind === 'play' ? random.of(['walk', 'stand']) : null,
      path: kind === 'path' ? random.of(shot.paths as Part[]).id : null,
      plays: random.of(['once', 'while']),
      blend: random.of([0, 0.25, 4]),
    };
    const keys = (cue.keys as Part[]).map((key) => ({ ...key, value: random.between(-0.5, 1.5) }));
    return { ...cue, action: does, moreActions: [], keys };
  });
  return { ...shot, riders, cues };
}
