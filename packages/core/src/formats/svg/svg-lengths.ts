/** User units of CSS units (CSS Values 4, 6.2), and of an unknown font. */
export const UNITS: Readonly<Record<string, number>> = {
  '': 1,
  px: 1,
  in: 96,
  cm: 96 / 2.54,
  mm: 9.6 / 2.54,
  q: 2.4 / 2.54,
  pt: 96 / 72,
  pc: 16,
  em: 16,
  rem: 16,
  ex: 8,
  ch: 8,
};

const NUMBER = /^\s*([+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?)\s*([a-z]*|%)\s*$/i;

/**
 * A length in user units.
 *
 * @param whole what a hundred per cent are
 * @param font  the size of the font, user units
 * @returns null where it is none
 */
export function lengthOf(text: string, whole: number, font = 16): number | null {
  const match = NUMBER.exec(text);
  if (!match) return null;
  const [value, unit] = [Number(match[1]), match[2].toLowerCase()];
  if (!Number.isFinite(value)) return null;
  if (unit === '%') return (value * whole) / 100;
  if (unit === 'em') return value * font;
  if (unit === 'ex' || unit === 'ch') return (value * font) / 2;
  const factor = UNITS[unit];
  return factor === undefined ? null : value * factor;
}

const TIGHT = /[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?/giy;

/** Numbers as SVG lists them, with blanks, commas or nothing between: those before the first invalid token. */
export function numbersIn(text: string): number[] {
  const numbers: number[] = [];
  const between = /[\s,]*/y;
  for (let at = 0; ;) {
    between.lastIndex = at;
    between.exec(text);
    TIGHT.lastIndex = between.lastIndex;
    const match = TIGHT.exec(text);
    if (!match) return numbers;
    numbers.push(Number(match[0]));
    at = TIGHT.lastIndex;
  }
}
