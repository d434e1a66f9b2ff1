import {
  channelPace,
  channelsOf,
  type ChannelId,
  type Dressing,
  type Rider,
  type Shot,
  type Vec3,
} from '@fleet-rail/core';
import type { DrawPlace } from '../edits/drawn-path';

/** Meaning of a click in the stage; it returns to `select` by itself. */
export type Tool =
  | { readonly kind: 'select' }
  | { readonly kind: 'draw'; readonly places: readonly DrawPlace[] }
  | { readonly kind: 'pickPath'; readonly riders: readonly string[] }
  /** The next click on the path of the riders being attached says where it starts. */
  | { readonly kind: 'pickStart' }
  /** The next click on a rider, or on the ground, is what this rider aims at. */
  | { readonly kind: 'pickTarget'; readonly riderId: string }
  /** The next click on the selected path's curve puts a point, or a mark, there. */
  | { readonly kind: 'insert' }
  | { readonly kind: 'mark' }
  /** The next click on the rider's path makes it stop there; the next drag along it makes a slow stretch. */
  | { readonly kind: 'pickStop'; readonly riderId: string }
  | { readonly kind: 'dragZone'; readonly riderId: string }
  /** The next drag chooses the points in a box. */
  | { readonly kind: 'box' }
  /** The next click on the ground, or on something, positions this rider. */
  | { readonly kind: 'putRider'; readonly riderId: string }
  /** Clicks on edges of models pick runs of them. */
  | { readonly kind: 'edges'; readonly runs: readonly EdgePick[] };

/** A run of mesh edges that was picked. */
export interface EdgePick {
  readonly places: readonly Vec3[];
  readonly closed: boolean;
}

/** Selection, and the effect of a click on the stage. */
export interface Selection {
  readonly pathId: string | null;
  readonly points: ReadonlySet<number>;
  /** Selected dressing: see {@link chosenDressing}. */
  readonly dressingId: string | null;
  readonly riderId: string | null;
  /** Riders selected together with it; empty if it is alone. */
  readonly together: ReadonlySet<string>;
  /** Line of the run diagram: the distance, or a channel if the rider has it. */
  readonly line: 'distance' | ChannelId;
  /** Chosen keys of that line. */
  readonly keys: ReadonlySet<number>;
  /** Which take of the selected rider is compared with; null for none. */
  readonly take: number | null;
  readonly tool: Tool;
}

export const newSelection = (shot: Shot): Selection => ({
  pathId: shot.paths[0]?.id ?? null,
  points: new Set(),
  dressingId: null,
  riderId: shot.riders[0]?.id ?? null,
  together: new Set(),
  line: 'distance',
  keys: new Set(),
  take: null,
  tool: { kind: 'select' },
});

/** Selected dressing of the selected path, or its first: its ends are grips on the stage. */
export function chosenDressing({
  shot,
  pathId,
  dressingId,
}: Pick<Selection, 'pathId' | 'dressingId'> & { readonly shot: Shot }): Dressing | null {
  const own = shot.dressing.filter(({ path }) => path === pathId);
  return own.find(({ id }) => id === dressingId) ?? own[0] ?? null;
}

/** The channel whose line the run diagram shows of a rider; null where that is how far it is. */
export function shownChannel(rider: Rider | null | undefined, line: Selection['line']): ChannelId | null {
  return rider && line !== 'distance' && channelsOf(rider).includes(line) ? line : null;
}

/** How many keys the shown line of a rider has. */
function keysOf(rider: Rider, line: Selection['line']): number {
  const channel = shownChannel(rider, line);
  return channel === null
    ? (rider.attachment?.pace.keys.length ?? 0)
    : channelPace(rider, channel).keys.length;
}

/** Selection as far as another document has it. */
export function keptSelection(selection: Selection, shot: Shot): Partial<Selection> {
  const path = shot.paths.find(({ id }) => id === selection.pathId);
  const rider = shot.riders.find(({ id }) => id === selection.riderId);
  const keys = rider ? keysOf(rider, selection.line) : 0;
  const takes = rider?.attachment?.takes.length ?? 0;
  return {
    pathId: path?.id ?? shot.paths[0]?.id ?? null,
    points: path ? new Set([...selection.points].filter((i) => i < path.points.length)) : new Set(),
    riderId: rider?.id ?? shot.riders[0]?.id ?? null,
    together: [...selection.together].every((id) => shot.riders.some((one) => one.id === id))
      ? selection.together
      : new Set(),
    keys: [...selection.keys].every((i) => i < keys) ? selection.keys : new Set(),
    take: selection.take !== null && selection.take < takes ? selection.take : null,
  };
}
