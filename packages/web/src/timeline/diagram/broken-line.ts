/** A line through places on the screen as an SVG path, in hundredths of a pixel; a single one is a dot. */
export function brokenLine(places: readonly (readonly [number, number])[]): string {
  if (places.length === 0) return '';
  const path = `M${places.map(([x, y]) => `${inHundredths(x)},${inHundredths(y)}`).join('L')}`;
  return places.length === 1 ? `${path}Z` : path;
}

/** Finer than that is not drawn. */
const inHundredths = (pixels: number) => Math.round(pixels * 100) / 100;
