import type { Part } from './random-shot.js';
import type { Random } from './random.js';

const EASES = ['linear', 'hold', 'smooth'];

/**
 * A random shot with work by hand: transform keys, rest aims, carrier switches, cues that listen to stops, speeds and
 * each other. Uses its own random numbers, so that the shot under it is the same with and without.
 */
export function withHandWork(shot: Part, random: Random): Part {
  const riders = shot.riders as Part[];
  const turn = () => {
    const half = random.between(-Math.PI, Math.PI) / 2;
    return [0, Math.sin(half), 0, Math.cos(half)];
  };
  const place = (far: number) => [0, 1, 2].map(() => random.of([0, random.between(-far, far)]));
  const changed = riders.map((rider, i): Part => {
    // Those before it alone: they never wait for one after them.
    const before = riders.slice(0, i).map(({ id }) => id);
    const other = before.length > 0 ? random.of(before) : null;
    const byHand = random.chance(0.25);
    const keyed = {
      keys: random.rising(-10, random.whole(1, 6), 0.01, 60).map((frame) => ({
        frame,
        translation: place(random.size(0.001, 1_000)),
        rotation: turn(),
        ease: random.of(EASES),
      })),
    };
    const looks = {
      target: other === null ? { point: place(100) } : { rider: other },
      aim: { deadZone: random.of([0, 5]), damping: random.of([0, 0.5]), yawLimit: random.of([180, 30]) },
    };
    const carriers = random.rising(1, random.whole(1, 3), 1, 40).map((frame) => ({
      frame,
      rider: random.of([null, other]),
      translation: place(5),
      rotation: turn(),
      blend: random.of([0, 0.5, 10]),
    }));
    return {
      ...rider,
      ...(byHand ? { attachment: null, transformKeys: keyed } : {}),
      restAim: random.chance(0.2) ? looks : null,
      parentKeys: random.chance(0.15) ? carriers : [],
    };
  });
  const cues = (shot.cues as Part[]).map((cue, i): Part => {
    const does = cue.action as Part;
    // An action that starts or ends a stop may close a circle; actions on parts never do.
    if (!random.chance(0.5) || (does.kind !== 'turn' && does.kind !== 'move')) return cue;
    const kind = random.of(i > 0 ? ['stop', 'speed', 'cue'] : ['stop', 'speed']);
    const on = {
      kind,
      rider: kind === 'cue' ? null : random.of(riders).id,
      stop: random.whole(0, 2),
      from: random.of(['begin', 'end']),
      cue: kind === 'cue' ? `c${i - 1}` : null,
    };
    return {
      ...cue,
      trigger: on,
      moreActions: random.chance(0.5) ? [{ ...does, times: random.of([-1, 2]) }] : [],
    };
  });
  return { ...shot, riders: changed, cues };
}
