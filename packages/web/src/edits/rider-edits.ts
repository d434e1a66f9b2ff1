import {
  Camera,
  LIMITS,
  RestAim,
  Rider,
  ShotError,
  defaultsOf,
  freeBadge,
  freeId,
  freeName,
  leastUsedColor,
  moveKey,
  refuseCircles,
  withFoundRig,
  withAttachment,
  withKey,
  withRider,
  type AimTarget,
  type Axes,
  type Attachment,
  type Kind,
  type Pace,
  type Shot,
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

export const changeRider =
  (id: string, change: (rider: Rider) => Rider): Edit =>
  (shot) =>
    withRider(shot, id, change);

export const changeAttachment =
  (id: string, change: (attachment: Attachment) => Attachment): Edit =>
  (shot) =>
    withAttachment(shot, id, change);

export const changePace = (id: string, change: (pace: Pace) => Pace): Edit =>
  changeAttachment(id, (attachment) => ({ ...attachment, pace: change(attachment.pace) }));

/**
 * A rider with a model of the server, at rest at the origin. A vehicle has the wheels that were found in it.
 *
 * @throws ShotError where the shot holds all the riders it can
 */
export function addRider(shot: Shot, model: KeptModel): { shot: Shot; id: string } {
  const { shot: dressed, modelId } = withModel(shot, model);
  const kind = kindOf(model);
  const { shot: added, id } = addPlainRider(dressed, model.name, {
    kind,
    model: modelId,
    chassis: model.facts.facing?.chassis ?? null,
    camera: kind === 'camera' ? defaultsOf(Camera) : null,
  });
  const { rig } = model.facts;
  const rolls = kind === 'vehicle' && rig.wheels.length > 0;
  return { shot: rolls ? withRider(added, id, (rider) => withFoundRig(rider, rig)) : added, id };
}

/** Takes from a rider what was found in its model to roll, steer and lean. */
export const withoutRig = (id: string): Edit =>
  changeRider(id, (rider) => ({
    ...rider,
    wheels: [],
    steering: { ...rider.steering, node: null },
    body: { ...rider.body, node: null },
  }));

/**
 * A rider without a model: a camera to look through, or a carrier for others.
 *
 * @throws ShotError where the shot holds all the riders it can
 */
export function addPlainRider(shot: Shot, name: string, parts: Partial<Rider>): { shot: Shot; id: string } {
  if (shot.riders.length >= LIMITS.riders) {
    throw new ShotError('riders', `${shot.riders.length} already`, `at most ${LIMITS.riders}`);
  }
  const id = freeId(name, shot.riders);
  const rider: Rider = {
    ...defaultsOf(Rider),
    ...parts,
    id,
    name: freeName(name, shot.riders),
    badge: freeBadge(name, shot),
    color: leastUsedColor(shot),
  };
  return { shot: { ...shot, riders: [...shot.riders, rider] }, id };
}

/** Puts another model under a rider. All it was set up with stays; axes that were the old model's are the new one's. */
export const replaceModel =
  (id: string, model: KeptModel, before: KeptModel | undefined): Edit =>
  (shot) => {
    const { shot: dressed, modelId } = withModel(shot, model);
    return withRider(dressed, id, (rider) => {
      const { attachment } = rider;
      const was = before?.facts.facing ?? { forward: '+z', up: '+y' };
      const found = model.facts.facing;
      const takesAxes =
        attachment && found && attachment.facing.forward === was.forward && attachment.facing.up === was.up;
      const axes = takesAxes ? { forward: found.forward, up: found.up } : {};
      return {
        ...rider,
        model: modelId,
        chassis: found?.chassis ?? rider.chassis,
        attachment: attachment && { ...attachment, facing: { ...attachment.facing, ...axes } },
      };
    });
  };

/** A shot that knows a model of the server's, and that model's id in it. */
export function withModel(
  shot: Shot,
  model: Pick<KeptModel, 'id' | 'name'>,
): { shot: Shot; modelId: string } {
  const existing = shot.models.find((other) => other.source.asset === model.id);
  if (existing) return { shot, modelId: existing.id };
  const modelId = freeId(model.name, shot.models);
  const models = [...shot.models, { id: modelId, name: model.name, source: { asset: model.id } }];
  return { shot: { ...shot, models }, modelId };
}

/** Likely kind of a model: one with wheels is a vehicle, one with a lens a camera, one with a skin a character. */
function kindOf({ facts }: KeptModel): Kind {
  const has = (name: RegExp) => facts.nodes.some((node) => name.test(node));
  if (has(/wheel/i) || facts.rig.wheels.length > 2) return 'vehicle';
  if (has(/wing/i)) return 'creature';
  if (has(/camera|gimbal|lens/i)) return 'camera';
  return facts.skinned ? 'character' : 'prop';
}

/** The axes that riders' models were found to face by, for riders that are attached for the first time. */
export function foundAxes(shot: Shot, models: readonly KeptModel[]): Map<string, Axes> {
  const found = new Map<string, Axes>();
  for (const rider of shot.riders) {
    const asset = shot.models.find(({ id }) => id === rider.model)?.source.asset;
    const facing = models.find(({ id }) => id === asset)?.facts.facing;
    if (facing) found.set(rider.id, { forward: facing.forward, up: facing.up });
  }
  return found;
}

/** Aims a rider at something, or with null at nothing. */
export const aimAt = (id: string, target: AimTarget | null): Edit =>
  refusing((shot) =>
    withRider(shot, id, (rider) => {
      const { attachment } = rider;
      if (attachment === null)
        return { ...rider, restAim: target && { ...(rider.restAim ?? defaultsOf(RestAim)), target } };
      return {
        ...rider,
        attachment: { ...attachment, facing: { ...attachment.facing, mode: 'aim', target, ahead: 0 } },
      };
    }),
  );

/** Shows the picture of a camera from a frame on. */
export const cutTo =
  (camera: string, frame: number): Edit =>
  (shot) => ({ ...shot, cuts: withKey(shot.cuts, { frame, camera }) });

/** Moves the cut at a frame, no further than to its neighbours and the ends of the range. */
export const moveCut =
  (from: number, to: number): Edit =>
  (shot) => {
    const { cuts, range } = shot;
    const i = cuts.findIndex(({ frame }) => frame === from);
    const low = i > 0 ? cuts[i - 1].frame + 1 : range.first;
    const high = i < cuts.length - 1 ? cuts[i + 1].frame - 1 : range.last;
    const frame = Math.min(high, Math.max(low, Math.round(to)));
    if (i < 0 || low > high || frame === from) return shot;
    return { ...shot, cuts: cuts.map((cut, n) => (n === i ? { ...cut, frame } : cut)) };
  };

export const removeCut =
  (frame: number): Edit =>
  (shot) => ({ ...shot, cuts: shot.cuts.filter((cut) => cut.frame !== frame) });

/** An edit that does not let riders wait for each other in a circle. */
export function refusing(edit: Edit): Edit {
  return (shot) => {
    const after = edit(shot);
    refuseCircles(after);
    return after;
  };
}

export const placeKey = (id: string, key: number, frame: number, value: number): Edit =>
  changePace(id, (pace) => moveKey(pace, key, frame, value));
