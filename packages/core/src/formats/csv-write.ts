import { frameTime, type SampledShot } from '../bake/index.js';
import type { Document } from '@gltf-transform/core';
import { bakeParts } from './baked-parts.js';
import { POSE } from '../rider/index.js';

export const CSV_HEADER = 'frame,time,rider,part,tx,ty,tz,qx,qy,qz,qw,distance,speed,bank';

/**
 * A baked shot as CSV: one row per frame and rider, and after it one for each part of its model that moves by
 * itself, in what it hangs on; frames outermost, numbers in the shortest form that reads back to the same double.
 *
 * @param models by the document's model ids, as for {@link writeGlb}; without a rider's, its parts are left out
 */
export function writeCsv(sampled: SampledShot, models: ReadonlyMap<string, Document> = new Map()): string {
  const { shot, frames, riders } = sampled;
  const names = shot.riders.map((rider) => quoted(rider.id));
  const parts = shot.riders.map((rider, r) => {
    const model = models.get(rider.model ?? '');
    return model ? bakeParts(sampled.parts[r], model) : [];
  });
  const lines = [CSV_HEADER];
  for (let i = 0; i < frames; i++) {
    const frame = shot.range.first + i;
    const lead = `${frame},${frameTime(shot, frame)},`;
    riders.forEach((pose, r) => {
      const row = pose.subarray(i * POSE.size, (i + 1) * POSE.size);
      lines.push(`${lead}${names[r]},,${Array.from(row, String).join(',')}`);
      for (const { node, places } of parts[r]) {
        const { translation, rotation } = places[i];
        lines.push(`${lead}${names[r]},${quoted(node)},${[...translation, ...rotation].join(',')},,,`);
      }
    });
  }
  return `${lines.join('\n')}\n`;
}

/** RFC 4180: quoted where a comma, quote or line break would break the row. */
function quoted(text: string): string {
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}
