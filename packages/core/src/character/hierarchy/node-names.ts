import { uniqueNames } from '../../document/unique-names.js';

/**
 * Unique names of nodes: a shot identifies parts by them.
 *
 * @param nodes in the order of the file, with the names of their meshes for those without one
 */
export function nodeNames(nodes: readonly { readonly name?: string; readonly mesh?: string }[]): string[] {
  return uniqueNames(
    nodes.map(({ name }) => name ?? ''),
    (i) => nodes[i].mesh || 'part',
  );
}
