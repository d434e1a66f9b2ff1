import {
  applyTransform,
  arcCorners,
  changeBasis,
  compiledPathOf,
  beginRiddenPathAt,
  closePath,
  closeWithBridge,
  drapePath,
  freeId,
  freeName,
  joinRiddenPaths,
  keysToEnd,
  levelPath,
  liftPath,
  middleOf,
  mirrorPath,
  moveSomePoints,
  moveWholePath,
  offsetSideways,
  openRiddenPath,
  openPath,
  PathError,
  mirroredPosition,
  movedPosition,
  resamplePath,
  reshapeRiddenPath,
  reverseRiddenPath,
  smoothPath,
  splitRiddenPath,
  thinPath,
  type Correspondence,
  type GroundHeight,
  type Quat,
  type Shot,
  type ShotPath,
  type Vec3,
  type WorldMove,
} from '@fleet-rail/core';
import type { Operation } from './operation';

/**
 * A shot after an operation.
 *
 * @throws PathError where a path has no curve, or the operation has no result
 */
export function applyOperation(shot: Shot, operation: Operation, ground: GroundHeight): Shot {
  switch (operation.kind) {
    case 'reverse':
      return reverseRiddenPath(shot, operation.path, operation.turnRiders);
    case 'first':
      return beginRiddenPathAt(shot, operation.path, operation.index, operation.startRiders);
    case 'open':
      return openRiddenPath(shot, operation.path, operation.at);
    case 'split':
      return splitRiddenPath(shot, operation.path, operation.at).shot;
    case 'join':
      return joinRiddenPaths(shot, operation.path, operation.other, operation.ends, operation.tension);
    default: {
      const path = shot.paths.find(({ id }) => id === operation.path);
      if (path === undefined) return shot;
      const built = reshaped(path, operation, ground);
      const copies = 'copy' in operation && operation.copy;
      if (copies) return withCopy(shot, path, built, operation.kind);
      const after = reshapeRiddenPath(shot, built, correspondence(path, operation));
      if (operation.kind !== 'close') return after;
      const [from, to] = [path, built].map(compiledPathOf);
      if (from instanceof PathError || to instanceof PathError) return after;
      return keysToEnd(after, path.id, from, to);
    }
  }
}

type Reshaping = Exclude<Operation, { kind: 'reverse' | 'first' | 'open' | 'split' | 'join' }>;

function reshaped(path: ShotPath, operation: Reshaping, ground: GroundHeight): ShotPath {
  switch (operation.kind) {
    case 'smooth':
      return smoothPath(path, operation.strength);
    case 'corners':
      return arcCorners(path, operation.radius, new Set(operation.points));
    case 'thin':
      return thinPath(path, operation.tolerance);
    case 'resample':
      return resamplePath(path, operation.count);
    case 'basis':
      return changeBasis(path, operation.basis, operation.tolerance);
    case 'move':
      return moved(path, operation);
    case 'lift':
      return liftPath(path, operation.height, new Set(operation.points));
    case 'level':
      return levelPath(path, operation.height);
    case 'drape':
      return drapePath(path, ground, operation.height, operation.tolerance);
    case 'mirror':
      return mirrorPath(path, operation.axis, operation.at);
    case 'offset':
      return offsetSideways(path, operation.side, operation.tolerance);
    case 'close':
      return operation.bridge ? closeWithBridge(path, operation.tension) : closePath(path);
    case 'unlink':
      return openPath(path);
    case 'transform':
      return applyTransform(path);
  }
}

/** How what rides a path finds its places on it after an operation. */
function correspondence(path: ShotPath, operation: Reshaping): Correspondence {
  switch (operation.kind) {
    case 'lift':
    case 'level':
    case 'drape':
      return 'plan';
    case 'mirror':
      return (place) => mirroredPosition(place, operation.axis, operation.at);
    case 'move': {
      if (operation.points.length > 0) return 'nearest';
      const move = worldMove(path, operation);
      return (place) => movedPosition(move, place);
    }
    case 'close':
    case 'unlink':
    case 'transform':
      return 'same';
    default:
      return 'nearest';
  }
}

type Move = Extract<Operation, { kind: 'move' }>;

function worldMove(path: ShotPath, { points, by, turnDeg, tiltDeg, scale }: Move): WorldMove {
  const [turn, tilt] = [turnDeg, tiltDeg].map((degrees) => (degrees * Math.PI) / 360);
  // About Y, then about the turned X; the nose goes up about the opposite of left.
  const rotation: Quat = [
    -Math.cos(turn) * Math.sin(tilt),
    Math.sin(turn) * Math.cos(tilt),
    Math.sin(turn) * Math.sin(tilt),
    Math.cos(turn) * Math.cos(tilt),
  ];
  return { pivot: middleOf(path, new Set(points)), translation: [...by] as Vec3, rotation, scale };
}

function moved(path: ShotPath, operation: Move): ShotPath {
  const chosen = new Set(operation.points);
  const move = worldMove(path, operation);
  return chosen.size > 0 ? moveSomePoints(path, chosen, move) : moveWholePath(path, move);
}

function withCopy(shot: Shot, original: ShotPath, copy: ShotPath, kind: string): Shot {
  const name = `${original.name} ${kind === 'offset' ? 'lane' : 'mirrored'}`;
  const free = freeName(name, shot.paths);
  return {
    ...shot,
    paths: [...shot.paths, { ...copy, id: freeId(free, shot.paths), name: free, marks: [] }],
  };
}
