import {
  Gait,
  Wheel,
  defaultsOf,
  takeFoundGait,
  takeFoundRig,
  withRider,
  type Ball,
  type FoundGait,
} from '@fleet-rail/core';
import type { KeptModel } from '../api/models';
import { changeRider, withModel } from './rider-edits';
import type { Edit } from './edit';

type Facts = KeptModel['facts'];

/** Makes a model of the server the ground, with all its parts, in its rest pose. */
export const chooseGround =
  (model: Pick<KeptModel, 'id' | 'name'>): Edit =>
  (shot) => {
    const { shot: dressed, modelId } = withModel(shot, model);
    return { ...dressed, ground: { ...shot.ground, model: modelId, nodes: [] } };
  };

/** Makes a level floor the ground, metres high; null leaves the shot without ground. */
export const layFloor =
  (level: number | null): Edit =>
  (shot) => ({ ...shot, ground: { model: null, nodes: [], level } });

/** Gives a rider what was found in its model: see {@link takeFoundRig}. */
export const takeRig =
  (id: string, { rig, facing }: Facts): Edit =>
  (shot) =>
    takeFoundRig(shot, id, rig, facing.chassis);

/** Measures one wheel from the model anew. */
export const measureWheel = (id: string, node: string, { rig }: Facts): Edit => {
  const found = rig.wheels.find((wheel) => wheel.node === node);
  return changeWheel(id, node, found ? { centre: found.centre, radius: found.radius, axle: found.axle } : {});
};

export const changeWheel = (id: string, node: string, part: Partial<Wheel>): Edit =>
  changeRider(id, (rider) => ({
    ...rider,
    wheels: rider.wheels.map((wheel) => (wheel.node === node ? { ...wheel, ...part } : wheel)),
  }));

/** A wheel for a node that was not found to be one, with the node's height as radius. */
export const addWheel = (id: string, node: string, { nodes, places }: Facts): Edit =>
  changeRider(id, (rider) => {
    const at = places[nodes.indexOf(node)] ?? [0, 0.4, 0];
    const wheel: Wheel = {
      ...defaultsOf(Wheel),
      node,
      centre: [...at],
      radius: Math.max(0.05, Math.abs(at[1])),
    };
    return { ...rider, wheels: [...rider.wheels, wheel] };
  });

export const removeWheel = (id: string, node: string): Edit =>
  changeRider(id, (rider) => ({ ...rider, wheels: rider.wheels.filter((wheel) => wheel.node !== node) }));

/** Sets a rider walking by a clip: see {@link takeFoundGait}. */
export const takeGait =
  (id: string, clip: string, gaits: readonly FoundGait[]): Edit =>
  (shot) =>
    takeFoundGait(shot, id, clip, gaits);

/** Lets a rider play another model's clips, beside its own; null leaves it those alone. */
export const borrowClips =
  (id: string, model: KeptModel | null): Edit =>
  (shot) => {
    if (model === null) return changeGait(id, { source: null })(shot);
    const { shot: dressed, modelId } = withModel(shot, model);
    const clip = model.facts.gaits.find(({ stride }) => stride > 0)?.clip ?? model.facts.clips[0]?.name;
    return withRider(dressed, id, (rider) => ({
      ...rider,
      gait: {
        ...(rider.gait ?? { ...defaultsOf(Gait), stride: 1 }),
        clip: clip ?? rider.gait?.clip ?? 'walk',
        source: modelId,
      },
    }));
  };

export const changeGait = (id: string, part: Partial<Gait>): Edit =>
  changeRider(id, (rider) => ({ ...rider, gait: rider.gait && { ...rider.gait, ...part } }));

export const changeBall = (id: string, part: Partial<Ball>): Edit =>
  changeRider(id, (rider) => ({ ...rider, ball: rider.ball && { ...rider.ball, ...part } }));
