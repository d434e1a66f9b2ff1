import * as THREE from 'three';
import type { DeskState } from '../../state/desk-store';
import { cameraNear } from './camera-near';
import { cameraOf, lensOf } from './lens';
import type { RiderFigures } from '../figures/rider-figures';

/** A stage that draws something else for a moment. */
export interface Glimpsed {
  readonly state: DeskState;
  readonly renderer: THREE.WebGLRenderer;
  readonly figures: RiderFigures;
  /** Of the present view. */
  readonly camera: THREE.PerspectiveCamera | THREE.OrthographicCamera;
  /** Puts everything where a state has it. */
  pose(there: DeskState): void;
  render(camera: THREE.Camera): void;
}

/** A picture through a rider's camera at a frame. */
export interface WantedPicture {
  readonly rider: string;
  readonly frame: number;
}

/** Pictures of the stage at some frames, as addresses of images, close to a rider at the last of them. */
export function closeUps(
  { state, renderer, figures, camera, pose, render }: Glimpsed,
  frames: readonly number[],
  riderId: string | null,
): string[] {
  pose({ ...state, frame: frames[frames.length - 1] });
  const near = riderId === null ? null : figures.boxOf(riderId);
  const except = new Set(riderId === null ? [] : [riderId]);
  const eye = near ? cameraNear(near, camera, (from, to) => figures.standsBetween(from, to, except)) : camera;
  return frames.map((frame) => {
    pose({ ...state, frame });
    render(eye);
    return renderer.domElement.toDataURL();
  });
}

/**
 * Pictures of riders' cameras at some frames, as addresses of images.
 *
 * @param width pixels of each picture
 */
export function picturesThrough(
  { state, renderer, figures, pose, render }: Glimpsed,
  wanted: readonly WantedPicture[],
  width: number,
): string[] {
  const size = renderer.getSize(new THREE.Vector2());
  const ratio = renderer.getPixelRatio();
  renderer.setPixelRatio(1);
  const pictures = wanted.map(({ rider, frame }) => {
    const there: DeskState = { ...state, frame, view: 'through', through: rider };
    const lens = lensOf(there);
    if (!lens) return '';
    pose(there);
    figures.hide(rider);
    figures.hideAround(lens.position);
    renderer.setSize(width, Math.max(1, Math.round(width / lens.aspect)), false);
    render(cameraOf(lens));
    return renderer.domElement.toDataURL('image/jpeg', 0.85);
  });
  renderer.setPixelRatio(ratio);
  renderer.setSize(size.x, size.y, false);
  return pictures;
}
