import { frameTime, type SampledShot } from '../bake/index.js';
import { POSE } from '../rider/index.js';

export const CSV_HEADER = 'frame,time,rider,part,tx,ty,tz,qx,qy,qz,qw,distance,speed,bank';

/**
 * A baked shot as CSV: one row per frame and rider, frames outermost, numbers in the shortest form
 * that reads back to the same double.
 */
export function writeCsv(sampled: SampledShot): string {
  const { shot, frames, riders } = sampled;
  const names = shot.riders.map((rider) => quoted(rider.id));
  const lines = [CSV_HEADER];
  for (let i = 0; i < frames; i++) {
    const frame = shot.range.first + i;
    const lead = `${frame},${frameTime(shot, frame)},`;
    riders.forEach((pose, r) => {
      const row = pose.subarray(i * POSE.size, (i + 1) * POSE.size);
      lines.push(`${lead}${names[r]},,${Array.from(row, String).join(',')}`);
    });
  }
  return `${lines.join('\n')}\n`;
}

/** RFC 4180: quoted where a comma, quote or line break would break the row. */
function quoted(text: string): string {
  return /[",\r\n]/.test(text) ? `"${text.replaceAll('"', '""')}"` : text;
}
