import { quat, vec3 } from 'gl-matrix';
import type { ModelSpace } from '../hierarchy/model-space.js';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import type { OwnAxes } from '../../motion/ride/contact-points.js';
import type { FootGround } from './foot-ground.js';
import { rotationBetween, type FootShape } from './foot-shape.js';
import { turnAboutUp, type AimedLeg } from './leg-bender.js';
import type { WalkerPlace } from './walker-place.js';

/** A foot leans with the ground while its sole is nearer to its floor than this, metres at the figure's size. */
const LEANS = 0.08;
/** Nobody sees less, metres. */
const SAME = 1e-9;

/** A foot as it is aimed at the ground. */
interface AimedFoot extends AimedLeg {
  readonly shape: FootShape;
  /** How far it reaches around its own origin along the ground, metres of the world; NaN where that was not asked for yet. */
  readonly reach: number;
}

/** How high a sole is over the floor of its clips, how low it may come, and how far the walk has it under that floor: metres of the world. */
interface SoleHeights {
  readonly own: number;
  readonly floor: number;
  readonly sunk: number;
}

/** Sets soles on the ground beneath them. */
export class SoleOnGround {
  /** @param space where the nodes of the figure are, kept up by whoever poses it */
  constructor(
    private readonly ground: FootGround,
    private readonly place: WalkerPlace,
    private readonly space: ModelSpace,
    private readonly axes: OwnAxes,
  ) {}

  /**
   * Leans a foot with the ground while it is down, and moves its target up or down so that the lowest place of its sole is as high over
   * the ground beneath that as its clips have it over their floor.
   *
   * @param turn how the foot is turned by its clips, in the model's space
   */
  settle(foot: AimedFoot, turn: Quat, { own, floor, sunk }: SoleHeights): void {
    const { place, ground, axes } = this;
    quat.identity(foot.lean);
    vec3.copy(world, foot.target);
    place.toWorld(world);
    if (!ground.look(world, foot.reach)) return;
    const wanted = Math.max(own, floor) - sunk;
    if (ground.isLevel && Math.abs(wanted - own) < SAME) return;
    const down = Math.min(1, Math.max(0, 1 - (wanted - Math.max(0, floor)) / (LEANS * axes.scale[2])));
    ground.lean(place.toModelTurn, axes.up, down * down * (3 - 2 * down), foot.lean);
    quat.multiply(leaned, foot.lean, turnAboutUp(axes.up, foot.turn, turn, leaned));
    world[1] += wanted - this.over(foot, world, rotationBetween(turn, leaned));
    place.toModel(world);
    vec3.copy(foot.target, world);
  }

  /** How high the lowest place of a placed foot is over the ground, metres; null where there is none. */
  clearance(foot: AimedFoot, origin: Vec3): number | null {
    return this.ground.look(origin, foot.reach || UNKNOWN) ? this.over(foot, origin, null) : null;
  }

  private over({ shape }: AimedFoot, origin: Vec3, turn: Quat | null): number {
    const { ground, place } = this;
    return shape.least(this.space, turn, (offset) => {
      place.offsetToWorld(offset, beside);
      return origin[1] + beside[1] - ground.under(origin[0] + beside[0], origin[2] + beside[2]);
    });
  }
}

/** How far a foot may reach of which that is not known, metres. */
const UNKNOWN = 0.1;
const world: Vec3 = [0, 0, 0];
const beside: Vec3 = [0, 0, 0];
const leaned: Quat = [0, 0, 0, 1];
