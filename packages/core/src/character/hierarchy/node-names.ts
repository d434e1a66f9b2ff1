import { uniqueNames } from '../../document/unique-names.js';

/**
 * The names nodes go by: a shot tells parts apart by them, so that no two of a model are alike.
 *
 * @param nodes in the order of the file, with the names of their meshes for those without one
 */
export function nodeNames(nodes: readonly { readonly name?: string; readonly mesh?: string }[]): string[] {
  return uniqueNames(
    nodes.map(({ name }) => name ?? ''),
    (i) => nodes[i].mesh || 'part',
  );
}
