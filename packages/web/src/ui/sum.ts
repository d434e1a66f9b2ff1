/** A number with what is written after it, up to the next sign. */
const NUMBER = /^(\d+[.,]?\d*(?:e[+-]?\d+)?|[.,]\d+(?:e[+-]?\d+)?)\s*([a-z°%]*(?:\/(?=[a-z])[a-z]+)?)\s*/i;

/**
 * Reads a small sum: numbers with units, + − * / and brackets. One that begins with +, * or / goes on from a value, and a number of
 * per cent is a part of that value.
 *
 * @param now     the value it may go on from
 * @param inUnits a number in its unit; null where there is no such unit
 * @returns null where it is no sum
 */
export function readSum(
  text: string,
  now: number,
  inUnits: (value: number, unit: string) => number | null,
): number | null {
  let rest = text.trim().replace(/[−–]/g, '-').replace(/[×·]/g, '*').replace(/÷/g, '/');
  const take = (sign: string): boolean => {
    if (!rest.startsWith(sign)) return false;
    rest = rest.slice(1).trimStart();
    return true;
  };
  const value = (): number | null => {
    if (take('-')) return negated(value());
    if (take('+')) return value();
    if (take('(')) {
      const inside = sum(product());
      return take(')') ? inside : null;
    }
    const match = NUMBER.exec(rest);
    if (match === null) return null;
    rest = rest.slice(match[0].length);
    const number = Number(match[1].replace(',', '.'));
    return match[2] === '%' ? (now * number) / 100 : inUnits(number, match[2].toLowerCase());
  };
  const times = (start: number | null): number | null => {
    let total = start;
    while (total !== null) {
      const over = rest.startsWith('/');
      if (!take('*') && !take('/')) return total;
      const next = value();
      if (next === null || (over && next === 0)) return null;
      total = over ? total / next : total * next;
    }
    return null;
  };
  const product = () => times(value());
  const sum = (start: number | null): number | null => {
    let total = start;
    while (total !== null) {
      const less = rest.startsWith('-');
      if (!take('+') && !take('-')) return total;
      const next = product();
      if (next === null) return null;
      total = less ? total - next : total + next;
    }
    return null;
  };
  const result = /^[+*/]/.test(rest) ? sum(times(now)) : sum(product());
  return rest === '' && result !== null && Number.isFinite(result) ? result : null;
}

const negated = (value: number | null) => (value === null ? null : -value);
