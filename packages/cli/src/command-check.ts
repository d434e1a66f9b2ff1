import { checkShot, evaluateShot, reportJson, reportText } from '@fleet-rail/core';
import { assetsOf, checkSceneOf } from '@fleet-rail/core/formats';
import { readModelsThatAre, readShot } from './files.js';
import { UsageError, type Arguments } from './options.js';

export const CHECK_FLAGS = ['json'];

/** `ride check`: the findings of a shot, worst first; code 2 if one is a fault that is not dismissed. */
export async function commandCheck(args: Arguments): Promise<{ code: 0 | 2; text: string }> {
  if (args.files.length !== 1) {
    throw new UsageError(
      `found ${args.files.length} shot files; expected one, as in: ride check a.shot.json --json`,
    );
  }
  const [file] = args.files;
  const shot = await readShot(file);
  const { models, missing } = await readModelsThatAre(shot, file);
  const findings = checkShot(
    evaluateShot(shot, await assetsOf(shot, models)),
    checkSceneOf(shot, models, missing),
  );
  const faults = findings.some(({ severity, dismissed }) => severity === 'fault' && dismissed === null);
  return {
    code: faults ? 2 : 0,
    text: args.flag('json') ? reportJson(findings) : reportText(findings, shot),
  };
}
