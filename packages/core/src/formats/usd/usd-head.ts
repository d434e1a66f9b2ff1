import type { Document } from '@gltf-transform/core';
import type { SampledShot } from '../../shot/bake/sample-shot.js';
import { identifier, numberText, quoted, type UsdText } from './usd-text.js';

/** Head of a layer: rate, range, units, provenance. */
export function writeHead(
  text: UsdText,
  prim: string,
  { shot, first, frames, cuts }: SampledShot,
  asset: ReturnType<ReturnType<Document['getRoot']>['getAsset']>,
): void {
  const put = (line: string) => text.line(`    ${line}`);
  text.line('#usda 1.0');
  text.line('(');
  put(`defaultPrim = ${quoted(prim)}`);
  put(`doc = ${quoted(`${shot.name}, by ${asset.generator ?? ''}`)}`);
  put(`startTimeCode = ${numberText(first)}`);
  put(`endTimeCode = ${numberText(first + frames - 1)}`);
  put(`timeCodesPerSecond = ${numberText(shot.fps)}`);
  put(`framesPerSecond = ${numberText(shot.fps)}`);
  put('metersPerUnit = 1');
  put('upAxis = "Y"');
  put('customLayerData = {');
  for (const [name, value] of Object.entries(asset.extras as object)) {
    const line = declared(name, value);
    if (line !== null) put(`    ${line}`);
  }
  if (asset.copyright) put(`    string copyright = ${quoted(asset.copyright)}`);
  if (cuts.length > 0) {
    const named = cuts.map(({ frame, camera }) => `${frame} ${camera}`).join('; ');
    put(`    string cuts = ${quoted(named)}`);
  }
  put('}');
  text.line(')');
  text.line('');
}

/** Custom data of a node, for values that have a type of their own in USD. */
export function customData(extras: Record<string, unknown>): string[] {
  const entries = Object.entries(extras).flatMap(([name, value]) => {
    const line = declared(name, value);
    return line === null ? [] : [line];
  });
  return entries.length > 0 ? [`customData = { ${entries.join('; ')} }`] : [];
}

function declared(name: string, value: unknown): string | null {
  const own = identifier(name);
  if (typeof value === 'string') return `string ${own} = ${quoted(value)}`;
  if (typeof value === 'boolean') return `bool ${own} = ${value ? 1 : 0}`;
  if (typeof value === 'number') return `double ${own} = ${numberText(value)}`;
  return null;
}
