import { LIMITS } from '../limits.js';
import { ShotError } from '../shot-error.js';

type Fields = Record<string, unknown>;
type Names = Readonly<Record<string, string>>;

/** By version 1's name the name that version 2 has, for each part of the document in which some changed. */
const SHOT: Names = { laid: 'dressing' };
const CHECKS: Names = { waived: 'dismissed' };
const RIDER: Names = {
  hitch: 'attachment',
  looks: 'restAim',
  keyed: 'transformKeys',
  stood: 'restBeforeParent',
  unrest: 'shake',
  echo: 'follow',
  carriers: 'parentKeys',
  forces: 'rigidBody',
  hanging: 'hangingParts',
};
const ATTACHMENT: Names = { follows: 'coupledTo', displaced: 'rideTransform' };
const CUE: Names = { on: 'trigger', does: 'action', also: 'moreActions' };

/**
 * A document of version 1 under the names of version 2; values stay the very same. Parts that are not of the shape that either
 * version has are left as they are, for the checks after it to refuse.
 *
 * @throws ShotError where a part has a field under its name of version 2 already
 */
export function upgrade1To2(raw: Readonly<Fields>): Fields {
  const shot = renamed(raw, SHOT, '');
  return {
    ...shot,
    version: 2,
    ...inside(shot, 'checks', (checks) => renamed(checks, CHECKS, 'checks')),
    ...eachOf(shot, 'riders', LIMITS.riders, upgradeRider),
    ...eachOf(shot, 'cues', LIMITS.cues, upgradeCue),
  };
}

function upgradeRider(raw: Fields, at: string): Fields {
  const rider = renamed(raw, RIDER, at);
  return {
    ...rider,
    ...inside(rider, 'attachment', (attachment) => renamed(attachment, ATTACHMENT, `${at}.hitch`)),
  };
}

function upgradeCue(raw: Fields, at: string): Fields {
  const cue = renamed(raw, CUE, at);
  return {
    ...cue,
    ...inside(cue, 'action', upgradeAction),
    ...eachOf(cue, 'moreActions', LIMITS.partsPerRider, upgradeAction),
  };
}

const upgradeAction = (action: Fields): Fields =>
  action.kind === 'hitch' ? { ...action, kind: 'attachment' } : action;

/** The same fields in the same order, some under other names. */
function renamed(fields: Fields, names: Names, at: string): Fields {
  for (const [old, name] of Object.entries(names)) {
    if (Object.hasOwn(fields, name))
      throw new ShotError(
        at === '' ? name : `${at}.${name}`,
        'a field of version 2',
        `"${old}" in version 1`,
      );
  }
  return Object.fromEntries(Object.entries(fields).map(([name, value]) => [names[name] ?? name, value]));
}

function inside(fields: Fields, name: string, change: (part: Fields) => Fields): Fields {
  const part = fields[name];
  return isFields(part) ? { [name]: change(part) } : {};
}

/** A list over its limit is refused by its length, before it is read. */
function eachOf(
  fields: Fields,
  name: string,
  most: number,
  change: (part: Fields, at: string) => Fields,
): Fields {
  const list = fields[name];
  if (!Array.isArray(list) || list.length > most) return {};
  const entries: readonly unknown[] = list;
  return { [name]: entries.map((part, i) => (isFields(part) ? change(part, `${name}[${i}]`) : part)) };
}

const isFields = (value: unknown): value is Fields =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const OLD_NAMES: Names = Object.fromEntries(
  [SHOT, CHECKS, RIDER, ATTACHMENT, CUE].flatMap((names) =>
    Object.entries(names).map(([old, name]) => [name, old]),
  ),
);

/** A refusal of an upgraded document in the words of the file it came from, which is of version 1. */
export function inWordsOf1({ path, found, expected }: ShotError): ShotError {
  const old = (text: string) => text.replace(/[A-Za-z]\w*/g, (word) => OLD_NAMES[word] ?? word);
  // Fields and kinds are listed by name; ids, which are listed after "one of: " too, and prose stay.
  const listsNames = found === 'an unknown key' || /^one of [^:]/.test(expected);
  return new ShotError(old(path), found, listsNames ? old(expected) : expected);
}
