import type { Document } from '@gltf-transform/core';
import type { SampledShot } from '../shot/bake/sample-shot.js';
import { modelsInPlay } from '../shot/evaluate/scene-assets.js';

/** Provenance of a file: how a shot was baked, and the authors of its models, as their files name them. */
export function factsJoined(
  { shot, first, frames, closing }: SampledShot,
  models: ReadonlyMap<string, Document>,
): { generator: string; copyright?: string; extras: Record<string, unknown> } {
  const used = modelsInPlay(shot);
  const told = shot.models.flatMap(({ id, name }) => {
    const asset = used.has(id) ? models.get(id)?.getRoot().getAsset() : undefined;
    if (!asset) return [];
    const facts = Object.entries(asset).filter(([key]) => key !== 'version' && key !== 'minVersion');
    return [{ name, ...Object.fromEntries(facts) } as { name: string; copyright?: unknown }];
  });
  const copyrights = [...new Set(told.flatMap(({ copyright }) => (copyright ? [String(copyright)] : [])))];
  return {
    generator: 'Fleet Rail',
    ...(copyrights.length > 0 && { copyright: copyrights.join('; ') }),
    extras: {
      fps: shot.fps,
      first,
      last: first + frames - 1 - (closing ? 1 : 0),
      loop: shot.loop,
      closingKey: closing,
      units: 'metres',
      up: 'Y',
      models: told,
    },
  };
}
