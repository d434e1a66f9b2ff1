import { PathError, ShotError } from '@fleet-rail/core';
import { FormatError } from '@fleet-rail/core/formats';
import { BAKE_FLAGS, BAKE_OPTIONS, commandBake } from './command-bake.js';
import { CHECK_FLAGS, commandCheck } from './command-check.js';
import { commandInfo } from './command-info.js';
import { LAY_FLAGS, LAY_OPTIONS, commandLay } from './command-lay.js';
import { NEW_FLAGS, NEW_OPTIONS, commandNew } from './command-new.js';
import { PATH_FLAGS, PATH_OPTIONS, commandPath } from './command-path.js';
import { RENDER_FLAGS, RENDER_OPTIONS, commandRender } from './command-render.js';
import { SCHEMA_FLAGS, commandSchema } from './command-schema.js';
import { UPGRADE_FLAGS, UPGRADE_OPTIONS, commandUpgrade } from './command-upgrade.js';
import { UsageError, readArguments, type Arguments } from './options.js';

/** Result of a command: a text, with its exit code unless that is 0. */
type Outcome = string | { readonly code: 0 | 2; readonly text: string };

interface Command {
  readonly options: readonly string[];
  readonly flags?: readonly string[];
  run(args: Arguments): Promise<Outcome>;
}

const COMMANDS: Record<string, Command> = {
  new: { options: NEW_OPTIONS, flags: NEW_FLAGS, run: commandNew },
  bake: { options: BAKE_OPTIONS, flags: BAKE_FLAGS, run: commandBake },
  info: { options: [], run: commandInfo },
  check: { options: [], flags: CHECK_FLAGS, run: commandCheck },
  render: { options: RENDER_OPTIONS, flags: RENDER_FLAGS, run: commandRender },
  path: { options: PATH_OPTIONS, flags: PATH_FLAGS, run: commandPath },
  schema: { options: [], flags: SCHEMA_FLAGS, run: commandSchema },
  upgrade: { options: UPGRADE_OPTIONS, flags: UPGRADE_FLAGS, run: commandUpgrade },
  lay: { options: LAY_OPTIONS, flags: LAY_FLAGS, run: commandLay },
};

/**
 * Carries out one command line.
 *
 * @param args what follows `ride`
 * @returns the exit code, and the text for stdout (0, or 2 where a check found faults) or the one line for stderr (1)
 */
export async function run(args: readonly string[]): Promise<{ code: 0 | 1 | 2; text: string }> {
  try {
    const [name, ...rest] = args;
    const command = Object.hasOwn(COMMANDS, name ?? '') ? COMMANDS[name] : undefined;
    if (command === undefined) {
      const found = name === undefined ? 'no command' : `"${name}"`;
      throw new UsageError(`found ${found}; expected one of ${Object.keys(COMMANDS).join(', ')}`);
    }
    const outcome = await command.run(readArguments(rest, command.options, command.flags));
    return typeof outcome === 'string' ? { code: 0, text: outcome } : outcome;
  } catch (error) {
    return { code: 1, text: refusal(error) };
  }
}

function refusal(error: unknown): string {
  const isExpected = [UsageError, ShotError, FormatError, PathError].some((kind) => error instanceof kind);
  const message = (error as Error).message.replaceAll(/\s*\n\s*/g, ' ');
  return isExpected ? `ride: ${message}` : `ride: something went wrong that should not: ${message}`;
}
