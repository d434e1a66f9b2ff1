import { plainToInstance } from 'class-transformer';
import { validateSync, type ValidationError } from 'class-validator';
import { checkLimits } from './check-limits.js';
import { checkReferences } from './check-references.js';
import { ShotError, inWords } from './shot-error.js';
import { Shot, SHOT_FORMAT, SHOT_VERSION } from './shot.js';

/**
 * A shot from data of unknown origin: checked whole, defaults filled in, as plain data.
 *
 * @param raw what JSON.parse gave, or a value built by hand
 * @throws ShotError for the first fault: its path, what was found and what was expected
 */
export function parseShot(raw: unknown): Shot {
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) {
    throw new ShotError('', inWords(raw), 'an object');
  }
  const source = raw as Record<string, unknown>;
  if (source.format !== SHOT_FORMAT) {
    throw new ShotError('format', inWords(source.format), `"${SHOT_FORMAT}"`);
  }
  if (source.version !== SHOT_VERSION) {
    throw new ShotError('version', inWords(source.version), `${SHOT_VERSION}`);
  }
  checkLimits(source);
  const shot = plainToInstance(Shot, source, { exposeDefaultValues: true });
  const faults = validateSync(shot, { whitelist: true, forbidNonWhitelisted: true });
  if (faults.length > 0) throw firstFault(faults, '', shot);
  checkReferences(shot);
  return plain(shot) as Shot;
}

/**
 * A shot from the text of a `.shot.json` file.
 *
 * @throws ShotError, also where the text is not JSON
 */
export function parseShotText(text: string): Shot {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch (error) {
    throw new ShotError('', `text that is not JSON (${(error as Error).message})`, 'a .shot.json file');
  }
  return parseShot(raw);
}

/** The text of a `.shot.json` file: exactly the document. */
export function writeShotText(shot: Shot): string {
  return `${JSON.stringify(shot, null, 2)}\n`;
}

function firstFault(faults: readonly ValidationError[], at: string, owner: object): ShotError {
  const fault = faults[0];
  const isIndex = /^\d+$/.test(fault.property) && Array.isArray(owner);
  const path = isIndex ? `${at}[${fault.property}]` : at ? `${at}.${fault.property}` : fault.property;
  if (fault.constraints?.whitelistValidation) {
    const keys = Object.keys(new (owner.constructor as new () => object)());
    return new ShotError(path, 'an unknown key', keys.length ? `one of: ${keys.join(', ')}` : 'no such key');
  }
  const expected = Object.values(fault.constraints ?? {})[0];
  if (expected !== undefined) return new ShotError(path, inWords(fault.value), expected);
  return firstFault(fault.children ?? [], path, fault.value as object);
}

/** The same data without its classes, so that it can be compared, drafted and sent between threads. */
function plain(value: unknown): unknown {
  if (Array.isArray(value)) return value.map(plain);
  if (typeof value !== 'object' || value === null) return value;
  const result: Record<string, unknown> = {};
  for (const [key, inner] of Object.entries(value)) {
    if (inner !== undefined) result[key] = plain(inner);
  }
  return result;
}
