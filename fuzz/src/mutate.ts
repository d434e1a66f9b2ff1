import type { Random } from './random.js';

/** Numbers that tend to break programs. */
const NUMBERS = [
  '0',
  '-0',
  '-1',
  '1e308',
  '-1e308',
  '1e999',
  '1e15',
  '1e-320',
  '1e-50',
  'NaN',
  'Infinity',
  '0x10',
  '',
  '.',
  '-',
  '1e',
  '99999999999999999999',
  '4294967296',
  '2147483647',
  '0.1.2',
];
/** Words that tend to break programs. */
const WORDS = [
  'null',
  '[]',
  '{}',
  '"',
  '<',
  '&x;',
  '&#0;',
  '\u0000',
  '\uD800',
  '{',
  '}',
  '(',
  'true',
  '\n',
  ',',
  ';',
];

/** A text damaged by a program, a disk or a mail: one to a few changes, somewhere. */
export function spoilt(text: string, random: Random): string {
  let result = text;
  for (let n = random.whole(1, 4); n > 0; n--) result = once(result, random);
  return result;
}

function once(text: string, random: Random): string {
  const at = random.whole(0, text.length);
  const to = Math.min(text.length, at + Math.floor(random.size(1, 200)));
  const put = (middle: string, end = to) => text.slice(0, at) + middle + text.slice(end);
  switch (random.whole(0, 8)) {
    case 0:
      return text.slice(0, at);
    case 1:
      return put('');
    case 2:
      return put(text.slice(at, to).repeat(random.of([2, 2, 50])), to);
    case 3:
      return put(random.of(WORDS), at);
    case 4:
      return put(random.of(WORDS));
    case 5:
    case 6:
    case 7:
      return withNumber(text, at, random);
    default:
      return put(random.of(['(', '<g>', '[', '{', 'JOINT a {']).repeat(random.of([10, 3_000, 20_000])), at);
  }
}

/** A number near a place made another. */
function withNumber(text: string, at: number, random: Random): string {
  const found = /[-+]?\d[\d.]*(?:[eE][-+]?\d+)?/.exec(text.slice(at));
  if (!found) return text;
  const from = at + found.index;
  return text.slice(0, from) + random.of(NUMBERS) + text.slice(from + found[0].length);
}

/** The same for bytes. */
export function spoiltBytes(bytes: Uint8Array, random: Random): Uint8Array {
  const out = bytes.slice(0, random.chance(0.1) ? random.whole(0, bytes.length) : bytes.length);
  for (let n = random.whole(0, 6); n > 0 && out.length > 0; n--)
    out[random.whole(0, out.length - 1)] = random.whole(0, 255);
  return out;
}

/** A value of JSON with one part of it made something else. */
export function spoiltJson(value: unknown, random: Random): unknown {
  const places: { owner: Record<string, unknown>; key: string }[] = [];
  const visit = (owner: unknown) => {
    if (typeof owner !== 'object' || owner === null) return;
    for (const key of Object.keys(owner)) {
      places.push({ owner: owner as Record<string, unknown>, key });
      visit((owner as Record<string, unknown>)[key]);
    }
  };
  const copy: unknown = JSON.parse(JSON.stringify(value));
  visit(copy);
  if (places.length === 0) return copy;
  for (let n = random.whole(1, 3); n > 0; n--) {
    const { owner, key } = random.of(places);
    owner[key] = oddValue(random, owner[key]);
  }
  return copy;
}

function oddValue(random: Random, now: unknown): unknown {
  const deep = (depth: number): unknown => {
    let value: unknown = 1;
    for (let i = 0; i < depth; i++) value = i % 2 ? [value] : { value };
    return value;
  };
  return random.of<() => unknown>([
    () => null,
    () => undefined,
    () => 0,
    () => -1,
    () => 1e308,
    () => 1e-50,
    () => 3.7,
    () => 1_000_000,
    () => 'x',
    () => 'x'.repeat(5_000),
    () => '',
    () => true,
    () => [],
    () => ({}),
    () => [null],
    () => ({ forEach: 1, length: 3 }),
    () => deep(1_000),
    () => [now, now],
    () => (Array.isArray(now) ? { ...now } : [now]),
    () => (Array.isArray(now) ? Array(2_000).fill(now[0] ?? 0) : now),
  ])();
}
