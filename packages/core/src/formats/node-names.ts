import type { Document } from '@gltf-transform/core';
import { uniqueNames } from '../document/unique-names.js';

/** Where the name is kept that a file gives a node, while it goes by one of its own. */
const IN_FILE = 'nameInFile';

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

/** Gives nodes their names; those of the file are kept beside them. */
export function giveNames(document: Document): void {
  const nodes = document.getRoot().listNodes();
  const names = nodeNames(nodes.map((node) => ({ name: node.getName(), mesh: node.getMesh()?.getName() })));
  nodes.forEach((node, i) => {
    const inFile = node.getName();
    if (inFile === names[i]) return;
    node.setName(names[i]).setExtras({ ...node.getExtras(), [IN_FILE]: inFile });
  });
}

/** Gives nodes the names of their files back. */
export function restoreNames(document: Document): void {
  for (const node of document.getRoot().listNodes()) {
    const { [IN_FILE]: inFile, ...extras } = node.getExtras();
    if (typeof inFile === 'string') node.setName(inFile).setExtras(extras);
  }
}
