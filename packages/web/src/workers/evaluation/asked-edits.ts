import {
  NO_MOVE,
  ShotError,
  detachBack,
  detachHere,
  evaluateShot,
  freeze,
  switchCarrier,
  holdDistance,
  keyHere,
  keysOfRide,
  moveRiders,
  naturalStops,
  placementAt,
  placementInWorld,
  removeRider,
  attachToCarrier,
  stopAsLongAs,
  withOwnPace,
  withOwnPath,
  withRider,
  type Rider,
  type SceneAssets,
  type Shot,
  type Vec3,
} from '@fleet-rail/core';
import type { KeptModel } from '../../api/models';
import { chooseGround } from '../../edits/contact-edits';
import { deletePath } from '../../edits/path-edits';

/** Wraps an edit that returns nothing but the shot. */
const only =
  <Rest extends readonly unknown[]>(edit: (shot: Shot, assets: SceneAssets, ...rest: Rest) => Shot) =>
  (shot: Shot, assets: SceneAssets, ...rest: Rest) => ({ shot: edit(shot, assets, ...rest) });

/**
 * Edits that need to know where something is, by name. The evaluation worker runs them: it has the motion and the rigid bodies, so
 * the page does not wait for either. Each returns the shot, and figures for a notice where there are any.
 */
const ASKED_EDITS = {
  detachHere: only(detachHere),
  detachBack: only(detachBack),
  deletePath: only(deletePath),
  removeRider: only(removeRider),
  /** Makes the model of a rider, which goes, the ground. */
  makeGround: only((shot, assets, id: string, model: KeptModel) =>
    chooseGround(model)(removeRider(shot, assets, id, shot.range.first)),
  ),
  handTo: only(switchCarrier),
  sitOn: only(
    (shot, assets, ids: readonly string[], carrier: string | null, frame: number, keepsPlace: boolean) =>
      ids.reduce((before, id) => attachToCarrier(before, assets, id, carrier, frame, keepsPlace), shot),
  ),
  putAt: only((shot, assets, id: string, frame: number, place: Vec3) => {
    const from = placementInWorld(evaluateShot(shot, assets), riderOf(shot, id), frame).translation;
    const step = place.map((value, k) => value - from[k]) as Vec3;
    return moveRiders(shot, assets, [id], frame, { ...NO_MOVE, step });
  }),
  standStill: only((shot, assets, id: string, frame: number) => {
    const here = placementAt(evaluateShot(shot, assets), riderOf(shot, id), frame);
    return withRider(shot, id, (one) => ({ ...one, transformKeys: null, rest: { ...one.rest, ...here } }));
  }),
  keyHere: only(keyHere),
  keysOfRide: only(keysOfRide),
  ownPath: withOwnPath,
  ownTiming: only((shot, assets, id: string) => {
    const evaluated = evaluateShot(shot, assets);
    return withRider(shot, id, (rider) => withOwnPace(evaluated, rider));
  }),
  freeze: only(freeze),
  stopAsLongAs: only(stopAsLongAs),
  naturalStops: only(naturalStops),
  holdDistance(shot: Shot, assets: SceneAssets, id: string, other: string, frame: number) {
    const held = holdDistance(evaluateShot(shot, assets), id, other, frame);
    if (held === null)
      throw new ShotError(
        `riders[${shot.riders.findIndex((rider) => rider.id === id)}].attachment`,
        'no path that could hold a distance',
        'a rider on a path',
      );
    const { rider, distance, missed } = held;
    return { shot: withRider(shot, id, () => rider), distance, missed };
  },
};

type AskedEdits = typeof ASKED_EDITS;
export type AskedEdit = keyof AskedEdits;

/** Arguments of an edit after the shot and its assets. */
export type AskedWith<Name extends AskedEdit> =
  Parameters<AskedEdits[Name]> extends [Shot, SceneAssets, ...infer Rest] ? Rest : never;

/** The result of an edit: the shot, and figures for a notice. */
export type Answered<Name extends AskedEdit> = ReturnType<AskedEdits[Name]>;

/** Runs edits outside the page’s thread. */
export interface EditAsker {
  /** @throws what the edit throws where it cannot be done */
  edited<Name extends AskedEdit>(shot: Shot, name: Name, ...rest: AskedWith<Name>): Promise<Answered<Name>>;
}

/** Runs one of them in the calling thread. */
export function doAskedEdit<Name extends AskedEdit>(
  shot: Shot,
  assets: SceneAssets,
  name: Name,
  rest: AskedWith<Name>,
): Answered<Name> {
  // The compiler does not see that a name and what goes with it belong together.
  const edit: (...given: never[]) => unknown = ASKED_EDITS[name];
  return edit(...([shot, assets, ...rest] as never[])) as Answered<Name>;
}

function riderOf({ riders }: Shot, id: string): Rider {
  const rider = riders.find((one) => one.id === id);
  if (rider === undefined) throw new ShotError('riders', `no "${id}"`, 'a rider of the shot');
  return rider;
}
