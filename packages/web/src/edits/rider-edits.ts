import {
  LIMITS,
  POSE,
  Rider,
  ShotError,
  defaultsOf,
  evaluateShot,
  freeId,
  moveKey,
  newHitch,
  type Hitch,
  type Kind,
  type Pace,
  type Quat,
  type Shot,
  type Vec3,
} from '@fleet-rail/core';
import type { KeptModel } from '../api/models';
import type { Edit } from './edit';

/** Points a model that was named by a file at one the server keeps. */
export const findModel =
  (modelId: string, asset: string): Edit =>
  (shot) => ({
    ...shot,
    models: shot.models.map((model) => (model.id === modelId ? { ...model, source: { asset } } : model)),
  });

/** Puts another rider in the place of the one with this id. */
export function changeRider(id: string, change: (rider: Rider) => Rider): Edit {
  return (shot) => ({
    ...shot,
    riders: shot.riders.map((rider) => (rider.id === id ? change(rider) : rider)),
  });
}

export const changeHitch = (id: string, change: (hitch: Hitch) => Hitch): Edit =>
  changeRider(id, (rider) => (rider.hitch ? { ...rider, hitch: change(rider.hitch) } : rider));

export const changePace = (id: string, change: (pace: Pace) => Pace): Edit =>
  changeHitch(id, (hitch) => ({ ...hitch, pace: change(hitch.pace) }));

/**
 * A rider that wears a model of the server's, at rest at the origin.
 *
 * @throws ShotError where the shot holds all the riders it can
 */
export function addRider(shot: Shot, model: KeptModel): { shot: Shot; id: string } {
  if (shot.riders.length >= LIMITS.riders) {
    throw new ShotError('riders', `${shot.riders.length} already`, `at most ${LIMITS.riders}`);
  }
  const known = shot.models.find((other) => other.source.asset === model.id);
  const modelId = known?.id ?? freeId(model.name, shot.models);
  const models = known
    ? shot.models
    : [...shot.models, { id: modelId, name: model.name, source: { asset: model.id } }];
  const id = freeId(model.name, shot.riders);
  const plain = defaultsOf(Rider);
  const rider: Rider = {
    ...plain,
    id,
    name: freeName(model.name, shot),
    kind: kindOf(model),
    model: modelId,
    badge: freeBadge(model.name, shot),
    color: leastUsedColor(shot),
  };
  return { shot: { ...shot, models, riders: [...shot.riders, rider] }, id };
}

/** What a model most likely is: something with wheels drives, something with a skin walks. */
function kindOf({ facts }: KeptModel): Kind {
  if (facts.nodes.some((name) => /wheel/i.test(name))) return 'vehicle';
  if (facts.nodes.some((name) => /wing/i.test(name))) return 'creature';
  return facts.skinned ? 'character' : 'prop';
}

function freeName(base: string, shot: Shot): string {
  const taken = new Set(shot.riders.map((rider) => rider.name));
  if (!taken.has(base)) return base;
  for (let n = 2; ; n++) if (!taken.has(`${base} ${n}`)) return `${base} ${n}`;
}

/** The first letter of the name, and the lowest number no badge has. */
export function freeBadge(name: string, shot: Shot): string {
  const numbers = new Set(shot.riders.map((rider) => Number(/\d+$/.exec(rider.badge)?.[0])));
  let number = 1;
  while (numbers.has(number)) number++;
  return `${(/[a-z]/i.exec(name)?.[0] ?? 'R').toUpperCase()}${number}`;
}

export function leastUsedColor(shot: Shot): number {
  const uses = Array.from(
    { length: 8 },
    (_, color) => shot.riders.filter((rider) => rider.color === color).length,
  );
  return uses.indexOf(Math.min(...uses));
}

/** Hitches a rider to a path: once along it over the range. A pace it already had is kept. */
export const attachRider =
  (id: string, pathId: string): Edit =>
  (shot) =>
    changeRider(id, (rider) => ({
      ...rider,
      hitch: rider.hitch ? { ...rider.hitch, path: pathId } : newHitch(pathId, shot.range),
    }))(shot);

/** Takes a rider off its path: it goes back to where it rested before. */
export const detachRider = (id: string): Edit => changeRider(id, (rider) => ({ ...rider, hitch: null }));

/** Takes a rider off its path and leaves it standing where it is at a frame. */
export const detachRiderHere =
  (id: string, frame: number): Edit =>
  (shot) => {
    const pose = new Float64Array(POSE.size);
    evaluateShot(shot).poses[shot.riders.findIndex((rider) => rider.id === id)](frame, pose, 0);
    const translation = [...pose.subarray(0, 3)] as Vec3;
    const rotation = [...pose.subarray(POSE.rotation, POSE.rotation + 4)] as Quat;
    return changeRider(id, (rider) => ({
      ...rider,
      hitch: null,
      parent: null,
      rest: { ...rider.rest, translation, rotation },
    }))(shot);
  };

/** Takes a rider away; what it carried stands on its own. */
export const deleteRider =
  (id: string): Edit =>
  (shot) => ({
    ...shot,
    riders: shot.riders
      .filter((rider) => rider.id !== id)
      .map((rider) => {
        const parent = rider.parent === id ? null : rider.parent;
        const { hitch } = rider;
        const aimsAtIt = hitch?.facing.target?.rider === id;
        return {
          ...rider,
          parent,
          hitch: aimsAtIt ? { ...hitch, facing: { ...hitch.facing, target: null } } : hitch,
        };
      }),
  });

export const placeKey = (id: string, key: number, frame: number, value: number): Edit =>
  changePace(id, (pace) => moveKey(pace, key, frame, value));
