import { cuesBehind, eachAction } from '../../document/each-action.js';
import type { Cue } from '../../document/shot-cue.js';
import type { Rider } from '../../document/shot-rider.js';
import type { Shot } from '../../document/shot.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';
import type { PathError } from '../../geometry/path/path-error.js';
import { withRidersBehind } from './evaluate-shot.js';
import { hierarchyOfRider, type SceneAssets } from './scene-assets.js';

/** All that a rider's poses and parts follow from: where none of it changed, neither did they. */
export interface RiderSources {
  /** Told apart by identity. */
  readonly parts: readonly unknown[];
  /** Sources compared by text. */
  readonly text: string;
}

/** @param also what else a caller's results follow from, as text */
export function riderSources(
  {
    cues,
    retimes,
    ground: floor,
    fps,
    range,
    loop,
  }: Pick<Shot, 'cues' | 'retimes' | 'ground' | 'fps' | 'range' | 'loop'>,
  rider: Rider,
  byId: ReadonlyMap<string, Rider>,
  curves: ReadonlyMap<string, CompiledPath | PathError>,
  assets: SceneAssets,
  also: string,
): RiderSources {
  const parts: unknown[] = [];
  const ids = new Set<string>();
  const own = withRidersBehind(byId, cues, rider);
  // Dynamic bodies are pushed by all others.
  const forced = own.some(({ rigidBody }) => rigidBody !== null);
  const all = forced ? [...byId.values()].flatMap((other) => withRidersBehind(byId, cues, other)) : own;
  if (forced || own.some(({ hangingParts }) => hangingParts.length > 0)) parts.push(assets.physics ?? null);
  for (const behind of new Set(all)) {
    ids.add(behind.id);
    const curve = behind.attachment ? curves.get(behind.attachment.path) : undefined;
    parts.push(...shapeOf(behind), curve);
  }
  const withAllBehind = (some: readonly Cue[]) => new Set(some.flatMap((cue) => cuesBehind(cue, cues)));
  const acting = withAllBehind(eachAction(cues).filter(({ action }) => ids.has(action.rider)));
  const bursting = withAllBehind(
    cues.filter(({ id }) => rider.emitter?.bursts.some(({ cue }) => cue === id)),
  );
  const unnamed = [...acting, ...bursting].map((cue) => ({ ...cue, name: '' }));
  const bending = retimes
    .filter((retime) => retime.riders.length === 0 || retime.riders.some((id) => ids.has(id)))
    .map((retime) => ({ ...retime, name: '' }));
  const hierarchy = hierarchyOfRider(assets, rider);
  for (const { action, moreActions } of acting)
    for (const { path } of [action, ...moreActions]) if (path !== null) parts.push(curves.get(path));
  if (hierarchy) parts.push(hierarchy);
  if (forced) parts.push(assets.hierarchies);
  if (assets.ground) parts.push(assets.ground);
  return { parts, text: `${also} ${JSON.stringify([fps, range, loop, floor.model, unnamed, bending])}` };
}

export function sameSources(before: RiderSources | undefined, after: RiderSources): boolean {
  return (
    before?.text === after.text &&
    before.parts.length === after.parts.length &&
    after.parts.every((part, i) => part === before.parts[i])
  );
}

/** A rider's name and colour move nothing. */
const LABELS: ReadonlySet<string> = new Set<keyof Rider>(['name', 'badge', 'color']);

/** Fields of a rider that move it, or the riders that hang on it. */
function shapeOf(rider: Rider): unknown[] {
  return Object.entries(rider).flatMap(([key, value]): unknown[] => (LABELS.has(key) ? [] : [value]));
}
