import { eachAction } from '../document/each-action.js';
import { hierarchyOfRider } from '../shot/evaluate/scene-assets.js';
import { dressingModels } from '../effects/dressing/placed-dressings.js';
import { clipNamed, nodeNamed } from '../character/hierarchy/node-hierarchy.js';
import type { Shot } from '../document/shot.js';
import type { CheckScene } from './check-scene.js';
import { found, type RawFinding } from './finding.js';
import type { RiderLook } from './rider-look.js';

/** Ground model that cannot be read, although riders may need it. */
export function findMissingGround({ ground }: Shot, { missing }: CheckScene): RawFinding[] {
  const { model } = ground;
  if (model === null || !missing.has(model)) return [];
  return [
    found(
      'missing-model',
      'fault',
      { part: model },
      (names) => `The ground, ${names.model(model)}, cannot be read; nothing rests on it.`,
    ),
  ];
}

/** Dressing models that cannot be read. */
export function findMissingDressing({ dressing }: Shot, { missing }: CheckScene): RawFinding[] {
  return dressing.flatMap(({ name, path, ...one }) =>
    dressingModels(one)
      .filter((model) => model !== null && missing.has(model))
      .map((model) =>
        found(
          'missing-model',
          'fault',
          { path, part: model },
          (names) => `${name}: its model ${names.model(model ?? '')} cannot be read; its pieces are missing.`,
        ),
      ),
  );
}

/** Models that are not there, and parts and clips that a model has not. */
export function findMissing(look: RiderLook): RawFinding[] {
  const { rider, evaluated, scene } = look;
  const { assets } = evaluated;
  const { model } = rider;
  if (model === null) return [];
  if (scene.missing.has(model))
    return [
      found(
        'missing-model',
        'fault',
        { rider: rider.id, part: model },
        (names) =>
          `The model of ${names.rider(rider.id)}, ${names.model(model)}, cannot be read; a stand-in is shown that neither rolls nor walks.`,
      ),
    ];
  const hierarchy = hierarchyOfRider(assets, rider);
  if (hierarchy === null) return [];
  const findings: RawFinding[] = [];
  const missing = (what: 'part' | 'clip', name: string, rest: string) =>
    findings.push(
      found(
        'missing-model',
        'warning',
        { rider: rider.id, part: name },
        (names) => `${names.rider(rider.id)}: ${names.model(model)} has no ${what} "${name}"; ${rest}.`,
      ),
    );
  const node = (name: string | null) => {
    if (name !== null && nodeNamed(hierarchy, name) < 0) missing('part', name, 'it does not move');
  };
  const clip = (name: string | null) => {
    if (name === null || clipNamed(hierarchy, name)) return;
    const own = hierarchy.clips.map((one) => `"${one.name}"`);
    const shown = own.slice(0, MOST_LISTED).join(', ');
    const more = own.length > MOST_LISTED ? ` and ${own.length - MOST_LISTED} more` : '';
    missing('clip', name, `it has ${own.length === 0 ? 'none' : shown + more}`);
  };
  rider.wheels.forEach((wheel) => node(wheel.node));
  rider.cycles.forEach((cycle) => [cycle.node, cycle.mirror].forEach(node));
  rider.clips.forEach((block) => clip(block.clip));
  eachAction(evaluated.shot.cues).forEach(({ action, off }) => {
    if (!off && action.kind === 'play' && action.rider === rider.id) clip(action.clip);
  });
  rider.hangingParts.forEach((part) => node(part.node));
  if (rider.emitter?.from === 'part' && nodeNamed(hierarchy, rider.emitter.node) < 0)
    missing('part', rider.emitter.node ?? '', 'it sprays from its origin');
  node(rider.steering.node);
  node(rider.body.node);
  node(rider.ball?.node ?? null);
  const { gait } = rider;
  if (gait === null) return findings;
  clip(gait.clip);
  clip(gait.idle);
  gait.acts.forEach((act) => clip(act.clip));
  gait.feet.forEach((foot) => node(foot.node));
  return findings;
}

const MOST_LISTED = 4;
