import { POSE, axesOf, headingDeg } from '@fleet-rail/core';
import * as THREE from 'three';
import type { DeskState } from '../../state/desk-store';
import { riderPose } from '../../state/rider-pose';
import type { Following } from '../../state/shown';

/** Followed rider, and the direction of the view from it. */
export interface FollowedPlace {
  readonly at: THREE.Vector3;
  /** Of length 1. */
  readonly way: THREE.Vector3;
  /** How large the view's own picture of it is, metres. */
  readonly size: number;
}

/** So much room what is followed has about it, metres. */
const SIZE = 3;
/** Height of the target above the rider, metres. */
const MIDDLE = 0.8;

/** Ways off a rider in its own directions: to its left, up, and where it heads. */
const WAYS: Record<Following, readonly [left: number, up: number, ahead: number]> = {
  behind: [0, 0.35, -1],
  beside: [1, 0.25, 0],
  above: [0, 1, -0.02],
};

/** View that follows the selected rider at the shown frame; null if it does not, or is not evaluated yet. */
export function followedPlace(
  state: Pick<DeskState, 'evaluation' | 'frame' | 'shot' | 'riderId' | 'follow'>,
): FollowedPlace | null {
  const rider = state.shot.riders.find(({ id }) => id === state.riderId);
  const pose = state.follow && rider ? riderPose(state, rider) : null;
  if (state.follow === null || !rider || pose === null) return null;
  const [x, y, z] = pose.subarray(POSE.translation, POSE.translation + 3);
  const heading = (headingDeg(pose, axesOf(rider).forward) * Math.PI) / 180;
  const ahead = new THREE.Vector3(Math.sin(heading), 0, Math.cos(heading));
  const left = new THREE.Vector3(ahead.z, 0, -ahead.x);
  const [l, u, a] = WAYS[state.follow];
  const way = new THREE.Vector3(0, u, 0).addScaledVector(left, l).addScaledVector(ahead, a).normalize();
  return { at: new THREE.Vector3(x, y + MIDDLE, z), way, size: SIZE };
}
