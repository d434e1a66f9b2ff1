import { parseArgs } from 'node:util';

/** A command line that cannot be carried out: one line that says what, where and what was expected. */
export class UsageError extends Error {
  override readonly name = 'UsageError';
}

/** Arguments after the command: file names, and options with a value each. */
export interface Arguments {
  readonly files: readonly string[];
  option(name: string): string | undefined;
  required(name: string): string;
  number(name: string, fallback: number): number;
  flag(name: string): boolean;
}

/**
 * @param known options that take a value
 * @param flags options that take none
 * @throws UsageError for an option that is not among them, lacks its value or is given wrongly
 */
export function readArguments(
  args: readonly string[],
  known: readonly string[],
  flags: readonly string[] = [],
): Arguments {
  const options = Object.fromEntries([
    ...known.map((name) => [name, { type: 'string' as const }]),
    ...flags.map((name) => [name, { type: 'boolean' as const }]),
  ]);
  let parsed: { values: Record<string, string | boolean | undefined>; positionals: string[] };
  try {
    parsed = parseArgs({ args: [...args], options, allowPositionals: true, strict: true }) as typeof parsed;
  } catch (error) {
    const list = [...known, ...flags].map((name) => `--${name}`).join(', ') || 'none';
    throw new UsageError(`${(error as Error).message.split('.')[0]}; options here: ${list}`);
  }
  const option = (name: string) => parsed.values[name] as string | undefined;
  return {
    files: parsed.positionals,
    option,
    required(name) {
      const value = option(name);
      if (value === undefined) throw new UsageError(`--${name}: found nothing; expected a value`);
      return value;
    },
    flag: (name) => parsed.values[name] === true,
    number(name, fallback) {
      const text = option(name);
      if (text === undefined) return fallback;
      const value = Number(text);
      if (text.trim() === '' || !Number.isFinite(value)) {
        throw new UsageError(`--${name}: found "${text}"; expected a number`);
      }
      return value;
    },
  };
}
