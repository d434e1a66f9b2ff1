import { OPERATIONS, type Operation, type OperationKind } from '../workers/operations/operation';
import { bridgedPaths, endsThatMeet, proposedTension } from '../workers/operations/bridge';
import { withPreview } from '../workers/operations/preview';
import type { DeskStore } from '../state/desk-store';
import { compiledPathOf, PathError, type Shot, type ShotPath } from '@fleet-rail/core';

/** An operation's settings to begin with, fit to the size of the path. */
export function freshOperation(
  kind: OperationKind,
  shot: Shot,
  path: ShotPath,
  points: ReadonlySet<number>,
): Operation {
  const curve = compiledPathOf(path);
  const length = curve instanceof PathError ? 10 : curve.length;
  const chosen = [...points];
  const tolerance = Number((length / 500).toPrecision(1));
  const on = { path: path.id };
  switch (kind) {
    case 'smooth':
      return { ...on, kind, strength: 0.3 };
    case 'corners':
      return { ...on, kind, points: chosen, radius: 2 };
    case 'thin':
      return { ...on, kind, tolerance };
    case 'resample':
      return { ...on, kind, count: Math.min(5_000, Math.max(4, path.points.length)) };
    case 'basis':
      return { ...on, kind, basis: path.basis === 'bezier' ? 'through' : 'bezier', tolerance };
    case 'move':
      return { ...on, kind, points: chosen, by: [0, 0, 0], turnDeg: 0, tiltDeg: 0, scale: 1 };
    case 'lift':
      return { ...on, kind, points: chosen, height: 1 };
    case 'level':
      return { ...on, kind, height: 0 };
    case 'drape':
      return { ...on, kind, height: 0.05, tolerance: 0.02 };
    case 'mirror':
      return { ...on, kind, axis: 0, at: 0, copy: true };
    case 'offset':
      return { ...on, kind, side: 3, tolerance: 0.03, copy: true };
    case 'reverse':
      return { ...on, kind, turnRiders: false };
    case 'first':
      return {
        ...on,
        kind,
        index: chosen[0] ?? Math.min(1, path.points.length - 1),
        startRiders: false,
      };
    case 'open':
      return { ...on, kind, at: 0 };
    case 'close':
      return { ...on, kind, bridge: true, tension: proposedTension({ first: path, second: path }) };
    case 'split':
      return { ...on, kind, at: Number((length / 2).toFixed(3)) };
    case 'join': {
      const other = shot.paths.find((candidate) => candidate !== path && !candidate.closed);
      return other
        ? { ...on, kind, ...proposedJoin(path, other) }
        : { ...on, kind, other: path.id, ends: { first: 'end', second: 'start' }, tension: 1 };
    }
    case 'unlink':
    case 'transform':
      return { ...on, kind };
  }
}

/** How two open paths are joined unless one says otherwise: by the ends that are nearest, over the shortest bridge that bends no tighter than they do. */
export function proposedJoin(path: ShotPath, other: ShotPath) {
  const ends = endsThatMeet(path, other);
  return { other: other.id, ends, tension: proposedTension(bridgedPaths(path, other, ends)) };
}

/** Opens an operation on the selected path; it is shown until it is accepted or left. */
export function startOperation(desk: DeskStore, kind: OperationKind): void {
  const { shot, pathId, points, set } = desk.getState();
  const path = shot.paths.find((other) => other.id === pathId);
  if (!path) return;
  set({
    operation: freshOperation(kind, shot, path, points),
    preview: null,
    tool: { kind: 'select' },
    playing: false,
  });
}

export function cancelOperation(desk: DeskStore): void {
  desk.getState().set({ operation: null, preview: null });
}

/** Does what the preview shows, as one step. False while there is nothing to accept yet. */
export function acceptOperation(desk: DeskStore): boolean {
  const { preview, operation, shot, edit, set } = desk.getState();
  if (operation === null || preview === null || preview.operation !== operation || preview.shot !== shot)
    return false;
  if (!('preview' in preview)) return false;
  const before = new Set(shot.paths.map((path) => path.id));
  set({ operation: null, preview: null });
  edit(OPERATIONS[operation.kind].name, () => withPreview(shot, operation, preview.preview));
  const fresh = desk.getState().shot.paths.find((path) => !before.has(path.id));
  set({ pathId: fresh && operation.kind !== 'split' ? fresh.id : operation.path, points: new Set() });
  return true;
}
