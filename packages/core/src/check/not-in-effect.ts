import type { EvaluatedShot } from '../evaluate/evaluate-shot.js';
import type { Rider } from '../document/shot-rider.js';
import type { Hitch } from '../document/shot-hitch.js';
import type { Finding } from './finding.js';

/** A setting that is kept in the document but does not move anything in this version. */
interface Kept {
  readonly at: string;
  readonly what: string;
  readonly instead: string;
}

/** Settings that are kept but have no effect, so that nobody takes them for played. */
export function findNotInEffect({ shot }: EvaluatedShot): Finding[] {
  const kept: Kept[] = [];
  shot.riders.forEach((rider, i) => {
    const at = `riders[${i}]`;
    if (rider.hitch) kept.push(...keptOfHitch(rider.hitch, `${at}.hitch`));
    kept.push(...keptOfParts(rider, at));
  });
  return kept.map(({ at, what, instead }) => ({
    severity: 'attention',
    at,
    message: `${what} is kept in the shot but not played yet; for now: ${instead}.`,
  }));
}

function keptOfHitch(hitch: Hitch, at: string): Kept[] {
  const { facing } = hitch;
  const list: (Kept | false)[] = [
    hitch.anchor === 'frontAxle' && { at: `${at}.anchor`, what: 'Anchor frontAxle', instead: 'origin' },
    facing.mode !== 'keep' &&
      facing.reference === 'ground' && {
        at: `${at}.facing.reference`,
        what: `Reference ${facing.reference}`,
        instead: 'world',
      },
    hitch.ground.mode !== 'none' && {
      at: `${at}.ground.mode`,
      what: 'Ground contact',
      instead: 'the height of the path',
    },
  ];
  return list.filter((entry) => entry !== false);
}

function keptOfParts(rider: Rider, at: string): Kept[] {
  const list: (Kept | false)[] = [
    rider.wheels.length > 0 && { at: `${at}.wheels`, what: 'Wheel spin and steer', instead: 'still wheels' },
    rider.steering.node !== null && { at: `${at}.steering`, what: 'Steering wheel', instead: 'still' },
    rider.body.node !== null && { at: `${at}.body`, what: 'Body lean', instead: 'stiff body' },
    rider.gait !== null && { at: `${at}.gait`, what: 'Gait', instead: 'the model as it stands' },
    rider.cycles.length > 0 && { at: `${at}.cycles`, what: 'Cycles', instead: 'still parts' },
  ];
  return list.filter((entry) => entry !== false);
}
