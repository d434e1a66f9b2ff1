import { shotFieldTables, shotSchema } from '@fleet-rail/core';
import { UsageError, type Arguments } from './options.js';

export const SCHEMA_FLAGS = ['tables'];

/** `ride schema`: the JSON Schema of a shot file, or with `--tables` its fields as Markdown. */
export function commandSchema(args: Arguments): Promise<string> {
  if (args.files.length > 0)
    throw new UsageError(`found "${args.files[0]}"; expected no file, as in: ride schema`);
  return Promise.resolve(args.flag('tables') ? shotFieldTables() : JSON.stringify(shotSchema(), null, 2));
}
