import type { Document, Material } from '@gltf-transform/core';

/** A material of one colour of the screen. */
export function plainMaterial(target: Document, name: string, color: string): Material {
  const channel = (at: number) => {
    const value = parseInt(color.slice(at, at + 2), 16) / 255;
    return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
  };
  return target
    .createMaterial(name)
    .setBaseColorFactor([channel(1), channel(3), channel(5), 1])
    .setMetallicFactor(0)
    .setRoughnessFactor(0.9);
}
