import {
  checkShot,
  evaluateShot,
  freeze,
  parseShot,
  particleAt,
  aliveAt,
  PARTICLE,
  physicsFor,
  sampleGauge,
  sampleShot,
  ShotError,
  PathError,
  type Shot,
} from '@fleet-rail/core';
import { randomDocument } from './random-document.js';
import { RANGE } from './random-shot.js';
import { withExtremes } from './random-extreme.js';
import { Random } from './random.js';
import { stage } from './stage.js';

const EXTREME = 0x9e3779b1;

/** Seconds within which a hundred frames of any shot are computed. */
const SECONDS = 2;

export interface ShotTrial {
  /** Seconds it may take. */
  readonly most?: number;
  /** Whether its paths have dressing, and its riders spray or are dynamic. */
  readonly built?: boolean;
  /** Whether some of its numbers are as large as they may be. */
  readonly extreme?: boolean;
}

/**
 * Plays a random shot whole: poses, parts, gauges, findings.
 *
 * @returns what is wrong with that; null where nothing is
 */
export async function tryShot(
  seed: number,
  { most = SECONDS, built = false, extreme = false }: ShotTrial = {},
): Promise<string | null> {
  let shot: Shot;
  try {
    shot = parseShot(randomDocument(seed, built));
    if (extreme) shot = withExtremes(shot, new Random(seed ^ EXTREME));
  } catch (error) {
    // Only circles of riders that wait for each other may be refused.
    return error instanceof ShotError && /circle|each other/.test(error.message) ? null : String(error);
  }
  // Loaded once, and not by any one shot.
  const physics = await physicsFor(shot);
  const start = performance.now();
  try {
    const assets = { ...stage(shot.ground.model !== null), physics };
    // A part of it is frozen: what was baked must play, and be a document like any other.
    if (seed % 5 === 0)
      shot = parseShot(freeze(shot, assets, [shot.riders[seed % shot.riders.length].id], 0.01));
    const evaluated = evaluateShot(shot, assets);
    const { riders, parts, dressings, sprays, seconds: shown } = sampleShot(evaluated);
    for (const { pieces, swept } of dressings)
      if (
        ![...(pieces?.places ?? []), ...(swept?.positions ?? []), ...(swept?.normals ?? [])].every(
          Number.isFinite,
        )
      )
        return 'something laid has a place that is no number';
    const particle = new Float64Array(PARTICLE.numbers);
    for (const spray of sprays)
      for (const second of spray ? shown : [])
        for (const { n, age } of spray ? aliveAt(spray, second) : []) {
          if (spray) particleAt(spray, n, age, particle);
          if (!particle.every(Number.isFinite)) return `particle ${n} is nowhere`;
        }
    const count = RANGE.last - RANGE.first + 1;
    for (const [i, rider] of shot.riders.entries()) {
      if (!riders[i].every(Number.isFinite)) return `rider ${i} has a pose that is no number`;
      if (!parts[i].values.every(Number.isFinite)) return `rider ${i} has a part that is no number`;
      for (const gauge of evaluated.gauges(rider)) {
        const { values } = sampleGauge(gauge, RANGE.first, count, 1);
        if (!values.every(Number.isFinite)) return `rider ${i}: ${gauge.kind} ${gauge.part} is no number`;
      }
    }
    checkShot(evaluated);
  } catch (error) {
    if (error instanceof ShotError || error instanceof PathError) return null;
    return error instanceof Error ? (error.stack ?? error.message) : String(error);
  }
  const seconds = (performance.now() - start) / 1e3;
  return seconds > most ? `it took ${seconds.toFixed(1)} s` : null;
}
