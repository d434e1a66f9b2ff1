import type { KeptModel } from '../api/models';
import { addRider, withoutRig } from '../edits/rider-edits';
import { notify } from '../ui/notices';
import type { DeskStore } from './desk-store';

/**
 * Adds a rider with a model, chosen as the rider that is worked on; tells what was found to roll in it, with the way to leave that out.
 *
 * @returns the id of the rider
 * @throws ShotError where the shot holds all the riders it can
 */
export function addModel(desk: DeskStore, model: KeptModel): string {
  const { shot, id } = addRider(desk.getState().shot, model);
  desk.getState().edit(`Add ${model.name}`, (before) => addRider(before, model).shot);
  desk.getState().set({ riderId: id });
  const { badge, wheels, chassis } = shot.riders.find((rider) => rider.id === id)!;
  if (wheels.length > 0)
    notify(
      'done',
      `${badge} rolls on the ${wheels.length === 1 ? 'wheel' : `${wheels.length} wheels`} found in ${model.name}${
        chassis === null ? '' : ', and rides with its rear axle on the path'
      }.`,
      {
        name: 'Leave them out',
        run: () => desk.getState().edit(`Leave the wheels of ${badge} out`, withoutRig(id)),
      },
    );
  return id;
}
