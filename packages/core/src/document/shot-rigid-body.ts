import { Amount, OneOf, Point, Text, Whole } from './constraints.js';
import type { Vec3 } from './vector.js';
import { AXES, type Axis } from './shot-facing.js';

/** A rider that is pulled along its path and else left to gravity, ground and whatever it meets. */
export class RigidBody {
  @OneOf('ball', 'box', 'hull', 'cylinder') shape: 'ball' | 'box' | 'hull' | 'cylinder' = 'ball';
  /** Of a cylinder, in the model; it is as long as the model is along it. */
  @OneOf(...AXES) axis: Axis = '+x';
  /** From its middle to its surface: the radius of a ball or a cylinder, else half of its height. */
  @Amount('metres', 1e-3, 1e4) size = 0.5;
  @Amount('kilograms', 1e-3, 1e7) mass = 20;
  @Amount('', 0, 10) friction = 0.9;
  @Amount('', 0, 1) bounce = 0.1;
  /** How firmly it is held to its place on the path, in the plan: 1 as on a stiff spring, 0 not at all. */
  @Amount('', 0, 1) pull = 1;
  /** The same of its turn. */
  @Amount('', 0, 1) turnPull = 0;
  /** Of its speed what is lost in a second, as a rate. */
  @Amount('a second', 0, 1e3) damping = 0;
  @Amount('a second', 0, 1e3) spinDamping = 0;
  /** Of the air: slows it by this times the square of its speed, over its mass. */
  @Amount('kilograms a metre', 0, 1e4) drag = 0;
  /** Number of last frames of a loop that are blended into its first. */
  @Whole(0, 10_000) blend = 0;
}

/** A part of a rider's model that hangs on it and swings. */
export class HangingPart {
  @Text() node!: string;
  @OneOf('ball', 'hinge') joint: 'ball' | 'hinge' = 'ball';
  /** Of a hinge, in the space of what the part hangs on. */
  @OneOf(...AXES) axis: Axis = '+x';
  /** From where it hangs to its middle of mass, in its own space before its scale. */
  @Point() middle: Vec3 = [0, -0.5, 0];
  @Amount('kilograms', 1e-3, 1e7) mass = 5;
  /** Spring to its rest pose in the model; 0 leaves it to gravity. */
  @Amount('newton metres a radian', 0, 1e7) stiffness = 0;
  @Amount('a second', 0, 1e3) damping = 0.2;
}
