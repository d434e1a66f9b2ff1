/** The part of the limit up to which nothing is changed. */
const FREE = 0.9;

/**
 * A value kept within ±limit without a corner: itself up to nine tenths of the limit, from there bent
 * towards it (twice continuously differentiable).
 *
 * @param limit not negative
 */
export function softLimit(value: number, limit: number): number {
  const free = FREE * limit;
  const size = Math.abs(value);
  if (size <= free) return value;
  const room = limit - free;
  return room > 0 ? Math.sign(value) * (free + room * Math.tanh((size - free) / room)) : 0;
}
