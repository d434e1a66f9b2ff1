import { ShotError, parseShot, type Shot } from '@fleet-rail/core';
import type { Random } from './random.js';

/** From the largest down: what a document does not accept it is not given. */
const SIZES = [1e6, 1e5, 1e4, 1e3, 100, 60, 10];
const RATES = [24, 60, 240];
/** So many of a shot's numbers are as large as they may be. */
const MOST = 3;

/** Left as they are: a longer range has as many more frames to be played. */
const LEFT_OUT: ReadonlySet<string> = new Set(['version', 'range']);

/**
 * A random shot some of whose numbers are as large as the document takes them, either way, at rates up to many frames a second: all that grows
 * with a length, a time or a rate grows as far as it can.
 */
export function withExtremes(shot: Shot, random: Random): Shot {
  let now = parseShot({ ...shot, fps: random.of(RATES) });
  for (let n = 0; n < MOST; n++) {
    const doc = JSON.parse(JSON.stringify(now)) as object;
    const { holder, key } = random.of(numbersIn(doc));
    const sign = random.chance(0.8) ? 1 : -1;
    for (const size of SIZES.slice(random.whole(0, SIZES.length - 1))) {
      holder[key] = sign * size;
      const taken = accepted(doc);
      if (taken === null) continue;
      now = taken;
      break;
    }
  }
  return now;
}

interface NumberIn {
  readonly holder: Record<string, unknown>;
  readonly key: string;
}

function numbersIn(value: object): NumberIn[] {
  const holder = value as Record<string, unknown>;
  return Object.entries(holder).flatMap(([key, inner]): NumberIn[] => {
    if (LEFT_OUT.has(key)) return [];
    if (typeof inner === 'number') return [{ holder, key }];
    return typeof inner === 'object' && inner !== null ? numbersIn(inner) : [];
  });
}

function accepted(document: unknown): Shot | null {
  try {
    return parseShot(document);
  } catch (error) {
    if (error instanceof ShotError) return null;
    throw error;
  }
}
