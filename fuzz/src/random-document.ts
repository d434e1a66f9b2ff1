import { withAnswers } from './random-answers.js';
import { withBuilt } from './random-built.js';
import { withHandWork } from './random-hand-work.js';
import { randomShot, type Part } from './random-shot.js';
import { Random } from './random.js';

// Hand keys, cues and what is built are drawn from number sequences of their own.
const BY_HAND = 0x5bd1e995;
const ANSWERS = 0x27d4eb2f;
const BUILT = 0x165667b1;

/**
 * A whole random document as parseShot takes it, always the same for a seed.
 *
 * @param built whether its paths have dressing, and its riders spray or are dynamic
 */
export function randomDocument(seed: number, built: boolean): Part {
  const byHand = withHandWork(randomShot(new Random(seed)), new Random(seed ^ BY_HAND));
  const answers = withAnswers(byHand, new Random(seed ^ ANSWERS));
  return built ? withBuilt(answers, new Random(seed ^ BUILT)) : answers;
}
