import type { KeptModel } from '../../api/models';
import { addRider, withoutRig } from '../../edits/rider-edits';
import { notify } from '../../ui/notices';
import type { DeskStore } from '../../state/desk-store';
import { attemptAsked } from '../../commands/attempt';

/** Metres each way from which on a model may be the ground. */
const WIDE = 8;

const isWide = ({ facts: { low, high } }: KeptModel): boolean =>
  [0, 2].every((k) => high[k] - low[k] >= WIDE);

/**
 * Adds a rider with a model and selects it; reports the wheels found in it, with a button to remove them, or offers
 * to make a wide one the ground.
 *
 * @returns the id of the rider
 * @throws ShotError where the shot holds all the riders it can
 */
export function addModel(desk: DeskStore, model: KeptModel): string {
  const { shot, id } = addRider(desk.getState().shot, model);
  desk.getState().edit(`Add ${model.name}`, (before) => addRider(before, model).shot);
  desk.getState().set({ riderId: id });
  const { badge, kind, wheels, chassis } = shot.riders.find((rider) => rider.id === id)!;
  if (wheels.length > 0)
    notify(
      'done',
      `${badge} rolls on the ${wheels.length === 1 ? 'wheel' : `${wheels.length} wheels`} found in ${model.name}${
        chassis === null ? '' : ', and rides with its rear axle on the path'
      }.`,
      {
        name: `Remove the wheels of ${badge}`,
        run: () => desk.getState().edit(`Remove the wheels of ${badge}`, withoutRig(id)),
      },
    );
  // A wide prop may have been meant as the ground.
  else if (kind === 'prop' && isWide(model))
    notify('done', `${badge} is added as a rider.`, {
      name: `Make ${badge} the ground`,
      run: () => void attemptAsked(desk, `Ground ${model.name}`, 'makeGround', id, model),
    });
  return id;
}
