import { frameTime, type SampledShot } from '../bake/index.js';
import { LOCAL } from '../hierarchy/index.js';
import { POSE } from '../pose/index.js';

export const CSV_HEADER = 'frame,time,rider,part,tx,ty,tz,qx,qy,qz,qw,distance,speed,bank';

/**
 * A baked shot as CSV: one row per frame and rider, and after it one for each part of its model that moves by
 * itself, in what it hangs on; frames outermost, numbers in the shortest form that reads back to the same double.
 */
export function writeCsv({ shot, frames, riders, parts }: SampledShot): string {
  const names = shot.riders.map((rider) => quoted(rider.id));
  const lines = [CSV_HEADER];
  for (let i = 0; i < frames; i++) {
    const frame = shot.range.first + i;
    const lead = `${frame},${frameTime(shot, frame)},`;
    riders.forEach((pose, r) => {
      const row = pose.subarray(i * POSE.size, (i + 1) * POSE.size);
      lines.push(`${lead}${names[r]},,${Array.from(row, String).join(',')}`);
      const { nodes, size, values } = parts[r];
      for (const { name, at } of nodes) {
        const place = values.subarray(i * size + at, i * size + at + LOCAL.scale);
        lines.push(`${lead}${names[r]},${quoted(name)},${Array.from(place, String).join(',')},,,`);
      }
    });
  }
  return `${lines.join('\n')}\n`;
}

/** RFC 4180: quoted where a comma, quote or line break would break the row. */
function quoted(text: string): string {
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}
