import type { Document, Material } from '@gltf-transform/core';

/** A colour of the screen in parts of light. */
export function linearColor(color: string): [number, number, number] {
  const channel = (at: number) => {
    const value = parseInt(color.slice(at, at + 2), 16) / 255;
    return value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4;
  };
  return [channel(1), channel(3), channel(5)];
}

/** A material of one colour of the screen. */
export function plainMaterial(target: Document, name: string, color: string): Material {
  return target
    .createMaterial(name)
    .setBaseColorFactor([...linearColor(color), 1])
    .setMetallicFactor(0)
    .setRoughnessFactor(0.9);
}
