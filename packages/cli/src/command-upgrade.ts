import { realpath } from 'node:fs/promises';
import { SHOT_VERSION, parseShotText, writeShotText } from '@fleet-rail/core';
import { readText, writeWhole } from './files.js';
import { UsageError, type Arguments } from './options.js';
import { FORCE, Outputs } from './outputs.js';

export const UPGRADE_OPTIONS = ['out'];
export const UPGRADE_FLAGS = [FORCE];

/** `ride upgrade`: a shot file in the latest version; over the file itself where no other is named. */
export async function commandUpgrade(args: Arguments): Promise<string> {
  if (args.files.length !== 1)
    throw new UsageError(
      `found ${args.files.length} shot files; expected one, as in: ride upgrade a.shot.json`,
    );
  const [file] = args.files;
  const text = await readText(file);
  const shot = parseShotText(text);
  const { version } = JSON.parse(text) as { version: number };
  const out = args.option('out');
  if (out !== undefined) {
    const outputs = await Outputs.ofShot(args, shot, file);
    await outputs.write(out, writeShotText(shot));
    return `${out}: version ${version} → ${SHOT_VERSION}`;
  }
  if (version === SHOT_VERSION) return `${file}: is version ${SHOT_VERSION} already`;
  // A link stays one.
  await writeWhole(await realpath(file), writeShotText(shot));
  return `${file}: version ${version} → ${SHOT_VERSION}`;
}
