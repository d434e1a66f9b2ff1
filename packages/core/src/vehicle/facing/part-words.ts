/**
 * The words of a part's name, in small letters: parted at blanks, marks, figures and where a capital begins a word, without the
 * name space before it. `mixamorig:LeftFoot` is left, foot; `wheel.FL_02` is wheel, fl.
 */
export function wordsOf(name: string): ReadonlySet<string> {
  const known = kept.get(name);
  if (known) return known;
  const words = new Set(
    name
      .replace(/^.*[:|]/, '')
      .replaceAll(/([a-z])([A-Z])/g, '$1 $2')
      .replaceAll(/([A-Z])([A-Z][a-z])/g, '$1 $2')
      .split(/[^A-Za-z]+/)
      .filter((word) => word !== '')
      .map((word) => word.toLowerCase()),
  );
  // Models repeat few names; those of others go again.
  if (kept.size > 5_000) kept.clear();
  kept.set(name, words);
  return words;
}

const kept = new Map<string, ReadonlySet<string>>();

const LEFT = ['left', 'l', 'lft', 'fl', 'rl', 'bl'];
const RIGHT = ['right', 'r', 'rgt', 'fr', 'rr', 'br'];
const FRONT = [
  ...[
    'front',
    'fore',
    'nose',
    'beak',
    'muzzle',
    'snout',
    'eye',
    'eyes',
    'lens',
    'face',
    'head',
    'jaw',
    'mouth',
  ],
  ...[
    'headlight',
    'headlights',
    'headlamp',
    'headlamps',
    'windscreen',
    'windshield',
    'grille',
    'grill',
    'bonnet',
  ],
  ...['hood', 'radiator', 'canopy', 'fl', 'fr'],
];
const REAR = [
  ...[
    'rear',
    'back',
    'tail',
    'exhaust',
    'muffler',
    'taillight',
    'taillights',
    'taillamp',
    'tailgate',
    'rudder',
  ],
  ...['stern', 'spoiler', 'rump', 'rl', 'rr', 'bl', 'br'],
];
/** Words beside which those above mean something else: a headrest, a backbone, a forearm. */
const OTHERWISE = ['rest', 'pack', 'bone', 'board', 'arm', 'ground', 'end', 'nub', 'top'];

const has = (words: ReadonlySet<string>, list: readonly string[]) => list.some((word) => words.has(word));
/** Words that are run together with no capital between, as `leftfoot` or `wheelfront`. */
const runsOn = (words: ReadonlySet<string>, part: string, not: RegExp) =>
  [...words].some((word) => (word.startsWith(part) || word.endsWith(part)) && !not.test(word));

/** Which side a name says: 1 for left, −1 for right; 0 where it says none, or both. */
export function sideOf(name: string): -1 | 0 | 1 {
  const words = wordsOf(name);
  const left = has(words, LEFT) || runsOn(words, 'left', /cleft/);
  const right = has(words, RIGHT) || runsOn(words, 'right', /bright|upright|fright|wright/);
  return left === right ? 0 : left ? 1 : -1;
}

/** Which end a name says: 1 for the front, −1 for the rear; 0 where it says none, or both. */
export function endOf(name: string): -1 | 0 | 1 {
  const words = wordsOf(name);
  if (has(words, OTHERWISE)) return 0;
  const front = has(words, FRONT) || runsOn(words, 'front', /x/);
  const rear = has(words, REAR) || runsOn(words, 'rear', /x/);
  return front === rear ? 0 : front ? 1 : -1;
}

/** A name without what says its side, so that both of a pair have the same. */
export function stemOf(name: string): string {
  return [...wordsOf(name)]
    .map((word) => word.replace(/^(left|right)|(left|right)$/g, ''))
    .map((word) => ({ fl: 'f', fr: 'f', rl: 'b', rr: 'b', bl: 'b', br: 'b' })[word] ?? word)
    .filter((word) => !['', 'l', 'r', 'lft', 'rgt'].includes(word))
    .join(' ');
}

/** Whether a name has one of some words. */
export const says = (name: string, ...list: readonly string[]): boolean => has(wordsOf(name), list);
