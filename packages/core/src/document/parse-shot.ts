import { validateSync, type ValidationError } from 'class-validator';
import { checkLimits } from './check-limits.js';
import { checkReferences } from './check-references.js';
import { instanceBySchema, readBySchema } from './compiled-schema.js';
import { plainRead } from './plain-value.js';
import { ShotError, inWords } from './shot-error.js';
import { Shot, SHOT_FORMAT, SHOT_VERSION } from './shot.js';
import { inWordsOf1, upgrade1To2 } from './upgrade/1-to-2.js';

/**
 * Reads a shot from data of unknown origin, of this version or an earlier one: checked whole, defaults filled in, as plain data.
 *
 * @param raw what JSON.parse gave, or a value built by hand
 * @throws ShotError for the first fault: its path under the names of the version it was read from, what was found and what was
 *   expected
 */
export function parseShot(raw: unknown): Shot {
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) {
    throw new ShotError('', inWords(raw), 'an object');
  }
  const source = raw as Record<string, unknown>;
  if (source.format !== SHOT_FORMAT) {
    throw new ShotError('format', inWords(source.format), `"${SHOT_FORMAT}"`);
  }
  if (source.version === 1) return parseVersion1(source);
  if (source.version !== SHOT_VERSION) {
    throw new ShotError('version', inWords(source.version), `1 or ${SHOT_VERSION}`);
  }
  return parseLatest(source);
}

function parseVersion1(source: Record<string, unknown>): Shot {
  const upgraded = upgrade1To2(source);
  try {
    return parseLatest(upgraded);
  } catch (error) {
    throw error instanceof ShotError ? inWordsOf1(error) : error;
  }
}

function parseLatest(source: Record<string, unknown>): Shot {
  checkLimits(source);
  const shot = (readBySchema(Shot, source) ?? readSlowly(source)) as Shot;
  checkReferences(shot);
  return shot;
}

/** The same by class-validator as a whole, which says what is wrong and where. */
function readSlowly(source: Record<string, unknown>): unknown {
  refuseDepth(source);
  const shot = instanceBySchema(Shot, plainRead(source) as object);
  const faults = validateSync(shot, { whitelist: true, forbidNonWhitelisted: true });
  if (faults.length > 0) throw firstFault(faults, '', shot);
  return plainRead(shot);
}

/** Nesting depth that no document reaches. */
const DEEPEST = 32;

function refuseDepth(source: object): void {
  let level: object[] = [source];
  for (let depth = 0; level.length > 0; depth++) {
    if (depth > DEEPEST) throw new ShotError('', `parts nested more than ${DEEPEST} deep`, 'fewer');
    level = level.flatMap((part) =>
      Object.values(part).filter((inner) => typeof inner === 'object' && inner !== null),
    );
  }
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
