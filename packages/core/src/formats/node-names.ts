import type { Document } from '@gltf-transform/core';
import { nodeNames } from '../character/hierarchy/node-names.js';

/** Key under which a node keeps the name that its file gives it, while it has a unique one. */
const IN_FILE = 'nameInFile';

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
