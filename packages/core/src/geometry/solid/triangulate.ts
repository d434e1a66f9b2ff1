import earcut from 'earcut';

/**
 * A plane outline as triangles (ear clipping).
 *
 * @param outline x, y of each corner in turn; it goes round to the left
 * @returns three corners a triangle, going round as the outline does
 */
export function triangulate(outline: readonly (readonly [number, number])[]): number[] {
  return earcut(outline.flat());
}
