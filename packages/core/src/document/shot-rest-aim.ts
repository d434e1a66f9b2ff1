import { OneOf, Nested, NestedOrNull } from './constraints.js';
import { AXES, Aim, AimTarget, type Axis } from './shot-facing.js';

/** Target of a rider without a path: at rest, carried, or moved by hand. */
export class RestAim {
  @OneOf(...AXES) forward: Axis = '+z';
  @OneOf(...AXES) up: Axis = '+y';
  @NestedOrNull(() => AimTarget) target: AimTarget | null = null;
  @Nested(() => Aim) aim: Aim = new Aim();
}
