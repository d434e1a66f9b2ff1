import { PathError, ShotError } from '@fleet-rail/core';
import { FormatError } from '@fleet-rail/core/formats';
import { BAKE_OPTIONS, commandBake } from './command-bake.js';
import { commandInfo } from './command-info.js';
import { NEW_OPTIONS, commandNew } from './command-new.js';
import { UsageError, readArguments, type Arguments } from './options.js';

const COMMANDS: Record<string, { options: string[]; run: (args: Arguments) => Promise<string> }> = {
  new: { options: NEW_OPTIONS, run: commandNew },
  bake: { options: BAKE_OPTIONS, run: commandBake },
  info: { options: [], run: commandInfo },
};

/**
 * Carries out one command line.
 *
 * @param args what follows `ride`
 * @returns the exit code, and the text for stdout (0) or the one line for stderr
 */
export async function run(args: readonly string[]): Promise<{ code: 0 | 1; text: string }> {
  try {
    const [name, ...rest] = args;
    const command = Object.hasOwn(COMMANDS, name ?? '') ? COMMANDS[name] : undefined;
    if (command === undefined) {
      const found = name === undefined ? 'no command' : `"${name}"`;
      throw new UsageError(`found ${found}; expected one of ${Object.keys(COMMANDS).join(', ')}`);
    }
    return { code: 0, text: await command.run(readArguments(rest, command.options)) };
  } catch (error) {
    return { code: 1, text: refusal(error) };
  }
}

function refusal(error: unknown): string {
  const cached = [UsageError, ShotError, FormatError, PathError].some((kind) => error instanceof kind);
  const message = (error as Error).message.replaceAll(/\s*\n\s*/g, ' ');
  return cached ? `ride: ${message}` : `ride: something went wrong that should not: ${message}`;
}
