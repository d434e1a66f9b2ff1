import { PathError, compiledPathOf } from '@fleet-rail/core';
import { readShot } from './files.js';
import { UsageError, type Arguments } from './options.js';
import { counted } from './counted.js';

/** `ride info`: a summary line, then paths with their length and riders with what they follow. */
export async function commandInfo(args: Arguments): Promise<string> {
  if (args.files.length !== 1) {
    throw new UsageError(`found ${args.files.length} shot files; expected one, as in: ride info a.shot.json`);
  }
  const shot = await readShot(args.files[0]);
  const { first, last } = shot.range;
  const lines = [
    `${shot.name}: ${counted(shot.paths.length, 'path')}, ${counted(shot.riders.length, 'rider')}, frames ${first} to ${last} at ${shot.fps} fps`,
  ];
  for (const path of shot.paths) {
    const curve = compiledPathOf(path);
    const length = curve instanceof PathError ? curve.message : `${curve.length} m`;
    lines.push(
      `path ${path.id}: ${path.basis}, ${path.closed ? 'closed' : 'open'}, ${path.points.length} points, ${length}`,
    );
  }
  for (const rider of shot.riders) {
    lines.push(
      `rider ${rider.id}: ${rider.badge} ${rider.name}, ${rider.attachment ? `follows ${rider.attachment.path}` : 'at rest'}`,
    );
  }
  return lines.join('\n');
}
