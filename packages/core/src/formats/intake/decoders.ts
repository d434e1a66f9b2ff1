import type { JSONDocument } from '@gltf-transform/core';
import type { Packing } from '../model-read.js';

/** Encodings of meshes that are removed at intake, so that nothing after it has to know them. */
const PACKINGS = ['KHR_draco_mesh_compression', 'EXT_meshopt_compression'];

/** Whether a file has meshes that are packed. */
export function isPacked({ json }: JSONDocument): boolean {
  return (json.extensionsUsed ?? []).some((name) => PACKINGS.includes(name));
}

export const PACKING: Packing = {
  // Each is loaded when a file first needs it: they are larger than all else that reads models.
  async addDecoders(io, used) {
    if (used.includes(PACKINGS[0]))
      io.registerDependencies({
        'draco3d.decoder': await (await import('draco3dgltf')).default.createDecoderModule(),
      });
    if (used.includes(PACKINGS[1])) {
      const { MeshoptDecoder } = await import('meshoptimizer');
      await MeshoptDecoder.ready;
      io.registerDependencies({ 'meshopt.decoder': MeshoptDecoder });
    }
  },
  unpack(document) {
    for (const extension of document.getRoot().listExtensionsUsed())
      if (PACKINGS.includes(extension.extensionName)) extension.dispose();
  },
};
