import { PathError, POSE, compiledPathOf, dressingCurve, dressingStretch, type Vec3 } from '@fleet-rail/core';
import { poseAt } from '../../workers/evaluation/pose-at';
import type { DeskState } from '../../state/desk-store';
import { farCorner } from '../../state/importing';
import { chosenDressing } from '../../state/selection';
import type { Ghost } from '../figures/ghosts';
import type { TrailPlace } from '../lines/milestones';

/** With more riders than this only the selected one has a badge. */
export const MOST_BADGES = 240;
/** With more points than these only chosen ones are labelled. */
const MOST_POINTS = 24;

/** A label of the stage, pixels from its corner. */
export interface StageLabel {
  readonly key: string;
  readonly x: number;
  readonly y: number;
  /** Position of the text, moved so that it covers no other. */
  readonly aside?: { readonly x: number; readonly y: number };
  /** Of a rider's badge how many it has. */
  readonly letters?: number;
}

/** A text over the stage, and its position in the scene. */
export interface PlacedLabel {
  readonly key: string;
  readonly position: Vec3;
  readonly letters?: number;
}

const pose = new Float64Array(POSE.size);
const positionIn = (of: Float64Array): Vec3 => [of[0], of[1], of[2]];

/** Distances of the selected rider's findings along its path: a post marks each. */
function findingPosts({ checked, riderId, shot }: DeskState): PlacedLabel[] {
  const path = shot.paths.find(
    ({ id }) => id === shot.riders.find((one) => one.id === riderId)?.attachment?.path,
  );
  const curve = path && checked ? compiledPathOf(path) : null;
  if (!curve || curve instanceof PathError) return [];
  return (checked?.findings ?? []).flatMap(({ rider, distance, dismissed }, i) => {
    if (rider !== riderId || distance === null || dismissed !== null) return [];
    const position: Vec3 = [0, 0, 0];
    curve.position(distance, position);
    return [{ key: `post ${i}`, position }];
  });
}

/** Ends of the selected dressing of the selected path. */
export function laidEnds(state: Pick<DeskState, 'shot' | 'dressingId' | 'pathId'>) {
  const laid = chosenDressing(state);
  const curve = laid && dressingCurve(state.shot, laid);
  if (laid === null || curve === null) return null;
  const { from, to } = dressingStretch(laid, curve);
  return { laid, curve, from, to };
}

/** The corner of what is about to be imported, by which it is made larger or smaller. */
function importCorner({ importing }: DeskState): PlacedLabel[] {
  const corner = importing && farCorner(importing);
  return corner ? [{ key: 'import corner', position: [corner[0], 0, corner[1]] }] : [];
}

function laidGrips(state: DeskState): PlacedLabel[] {
  const ends = laidEnds(state);
  if (ends === null) return [];
  return (['from', 'to'] as const).map((end) => {
    const position: Vec3 = [0, 0, 0];
    ends.curve.position(ends[end], position);
    return { key: `laid ${end}`, position };
  });
}

/** The labels of points, marks, ghosts, findings and riders. */
export function stageLabels(
  state: DeskState,
  shownPoints: readonly Vec3[],
  marks: readonly { readonly id: string; readonly position: Vec3 }[],
  ghosts: readonly Ghost[],
  stones: readonly TrailPlace[],
): PlacedLabel[] {
  const { evaluation, points, view, riderId, frame } = state;
  const labels: PlacedLabel[] = [];
  const all = shownPoints.length <= MOST_POINTS;
  const path = state.shot.paths.find(({ id }) => id === state.pathId);
  shownPoints.forEach((position, i) => {
    // Selected points on the ground have their height shown.
    const told = all && path?.points[i]?.position[1] !== 0;
    if (told || points.has(i)) labels.push({ key: `point ${i}`, position });
  });
  if (shownPoints.length > 0) labels.push(...laidGrips(state));
  labels.push(...importCorner(state));
  for (const { id, position } of marks) labels.push({ key: `mark ${id}`, position });
  for (const ghost of ghosts) {
    if (ghost.label) labels.push({ key: `ghost ${ghost.label}`, position: positionIn(ghost.pose) });
  }
  for (const { frame: at, position } of stones) labels.push({ key: `ghost f ${at}`, position });
  // Pictures have no badges.
  if (view === 'through' || evaluation === null) return labels;
  labels.push(...findingPosts(state));
  const badges = new Map(state.shot.riders.map(({ id, badge }) => [id, badge]));
  const riders = [...evaluation.riders.values()];
  const chosen = riders.filter(({ id }) => id === riderId);
  // Without room for all, the selected one is shown.
  const others = riders.length > MOST_BADGES ? [] : riders.filter(({ id }) => id !== riderId);
  for (const rider of [...chosen, ...others]) {
    poseAt(evaluation, rider, frame, pose);
    const letters = badges.get(rider.id)?.length;
    labels.push({ key: `rider ${rider.id}`, position: positionIn(pose), letters });
  }
  return labels;
}
