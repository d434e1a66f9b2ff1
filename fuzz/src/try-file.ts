import { PathError, ShotError, newShot, parseShot } from '@fleet-rail/core';
import { FormatError, readModel, readPaths } from '@fleet-rail/core/formats';
import { spoilt, spoiltBytes, spoiltJson } from './mutate.js';
import { randomShot } from './random-shot.js';
import { Random } from './random.js';
import { bvhText, csvText, glbOf, gltf, objText, svgText } from './seeds.js';

/** No small file takes longer to read or to refuse. */
const SECONDS = 2;
const OPTIONS = { scale: 1, fps: 24, firstFrame: 1, tolerance: 0.01 };
/** A message is for a person, and holds little of what was found. */
const LONGEST = 700;

/** The fault in how an input is taken or refused; null if there is none. */
async function judged(read: () => unknown): Promise<string | null> {
  const start = performance.now();
  try {
    await read();
  } catch (error) {
    const refused = error instanceof FormatError || error instanceof ShotError || error instanceof PathError;
    if (!refused) return error instanceof Error ? (error.stack ?? error.message) : String(error);
    if (error.message.length > LONGEST)
      return `a message of ${error.message.length} characters: ${error.message}`;
  }
  const seconds = (performance.now() - start) / 1e3;
  return seconds > SECONDS ? `it took ${seconds.toFixed(1)} s` : null;
}

const textFile = (make: (random: Random) => string, name: string) => (seed: number) => {
  const random = new Random(seed);
  const bytes = new TextEncoder().encode(spoilt(make(random), random));
  // Whatever is read has to fit into a document.
  return judged(async () => {
    const { paths } = await readPaths(bytes, name, OPTIONS);
    parseShot(newShot({ name: 'Imported', paths }));
  });
};

/** A GLB whose description, text or bytes are spoilt. */
function oddGlb(seed: number): Uint8Array {
  const random = new Random(seed);
  const { json, bytes } = gltf(random);
  if (random.chance(0.6)) return glbOf(JSON.stringify(spoiltJson(json, random)), bytes);
  const text = JSON.stringify(json);
  return random.chance(0.5) ? glbOf(spoilt(text, random), bytes) : spoiltBytes(glbOf(text, bytes), random);
}

export const trySvg = textFile(svgText, 'odd.svg');
export const tryObj = textFile(objText, 'odd.obj');
export const tryCsv = textFile(csvText, 'odd.csv');

export const tryBvh = (seed: number) => {
  const random = new Random(seed);
  const bytes = new TextEncoder().encode(spoilt(bvhText(random), random));
  return judged(() => readModel(bytes, 'odd.bvh'));
};

export const tryGlb = (seed: number) => judged(() => readModel(oddGlb(seed), 'odd.glb'));

export const tryGlbPaths = (seed: number) => judged(() => readPaths(oddGlb(seed), 'odd.glb', OPTIONS));

/** A shot that is nearly one. */
export const tryDocument = (seed: number) => {
  const random = new Random(seed);
  return judged(() => parseShot(spoiltJson(randomShot(random), random)));
};
