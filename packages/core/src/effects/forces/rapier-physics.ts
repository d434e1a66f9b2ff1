import RAPIER from '@dimforge/rapier3d-deterministic-compat';
import { quat } from 'gl-matrix';
import type { Quat, Vec3 } from '../../geometry/math/vec.js';
import { GRAVITY } from '../../geometry/math/gravity.js';
import { STATE, type BodySpec, type Physics, type PhysicsWorld, type WorldSpec } from './physics.js';

const xyz = ([x, y, z]: Vec3) => ({ x, y, z });
const xyzw = ([x, y, z, w]: Quat) => ({ x, y, z, w });
const vec = (values: Float64Array, at: number) => ({ x: values[at], y: values[at + 1], z: values[at + 2] });
/** Half the depth of level ground, and half its width. */
const [DEEP, WIDE] = [50, 20_000];
/** A body's own friction counts, so that of the ground is 1; of two bodies' their product. */
const { Multiply, Max } = RAPIER.CoefficientCombineRule;
/** Number of inner steps. */
const INNER = 4;

let loaded: Promise<Physics> | null = null;

/** Loads what makes worlds, once. */
export function loadPhysics(): Promise<Physics> {
  // A program of some megabytes, loaded only if needed.
  return (loaded ??= RAPIER.init().then(() => ({ open: (spec) => new RapierWorld(spec) })));
}

class RapierWorld implements PhysicsWorld {
  private world: RAPIER.World;
  private readonly bodies: number[];
  private readonly led: number[];
  /** Bodies by their handles, looked up once; those of a world that was gone back to are others. */
  private readonly found = new Map<number, RAPIER.RigidBody>();
  /** Riders that the next step pushes or turns. */
  private readonly pushed = new Set<RAPIER.RigidBody>();

  constructor(spec: WorldSpec) {
    this.world = new RAPIER.World({ x: 0, y: -GRAVITY, z: 0 });
    this.world.timestep = spec.step;
    this.world.integrationParameters.numSolverIterations = INNER;
    this.addGround(spec);
    this.bodies = spec.bodies.map((body) => this.addBody(body));
    this.led = spec.led.map(({ half, position, rotation }) => {
      const body = this.addCarrier(position, rotation);
      this.world.createCollider(RAPIER.ColliderDesc.cuboid(...half).setFrictionCombineRule(Multiply), body);
      return body.handle;
    });
  }

  private addGround({ ground, floor }: WorldSpec): void {
    const solid = (shape: RAPIER.ColliderDesc) =>
      this.world.createCollider(shape.setFriction(1).setFrictionCombineRule(Multiply).setRestitution(0));
    // Inner edges of a ground of triangles would else be felt as bumps.
    const smooth = RAPIER.TriMeshFlags.FIX_INTERNAL_EDGES;
    if (ground && ground.indices.length > 0)
      solid(RAPIER.ColliderDesc.trimesh(Float32Array.from(ground.positions), ground.indices, smooth));
    if (floor !== null)
      solid(RAPIER.ColliderDesc.cuboid(WIDE, DEEP, WIDE).setTranslation(0, floor - DEEP, 0));
  }

  private addBody(spec: BodySpec & { readonly state: Float64Array }): number {
    const { state } = spec;
    const body = this.world.createRigidBody(
      RAPIER.RigidBodyDesc.dynamic()
        .setTranslation(state[0], state[1], state[2])
        .setLinearDamping(spec.damping)
        .setAngularDamping(spec.spinDamping)
        // A sleeping body would not be pulled.
        .setCanSleep(false)
        .setCcdEnabled(true),
    );
    const shape = shapeOf(spec)
      .setMass(spec.mass)
      .setFriction(spec.friction)
      .setFrictionCombineRule(Multiply)
      .setRestitution(spec.bounce)
      .setRestitutionCombineRule(Max);
    this.world.createCollider(shape, body);
    this.setBody(body, state);
    return body.handle;
  }

  private addCarrier(position: Vec3, rotation: Quat): RAPIER.RigidBody {
    return this.world.createRigidBody(
      RAPIER.RigidBodyDesc.kinematicPositionBased()
        .setTranslation(...position)
        .setRotation(xyzw(rotation)),
    );
  }

  push(body: number, force: Vec3, torque: Vec3): void {
    const one = this.find(this.bodies[body]);
    one.addForce(xyz(force), true);
    if (torque[0] !== 0 || torque[1] !== 0 || torque[2] !== 0) one.addTorque(xyz(torque), true);
    this.pushed.add(one);
  }

  private find(handle: number): RAPIER.RigidBody {
    const known = this.found.get(handle) ?? this.world.getRigidBody(handle);
    this.found.set(handle, known);
    return known;
  }

  lead(led: number, position: Vec3, rotation: Quat): void {
    this.leadBody(this.led[led], position, rotation);
  }

  private leadBody(handle: number, position: Vec3, rotation: Quat): void {
    const body = this.find(handle);
    body.setNextKinematicTranslation(xyz(position));
    body.setNextKinematicRotation(xyzw(rotation));
  }

  set(body: number, state: Float64Array): void {
    this.setBody(this.find(this.bodies[body]), state);
  }

  private setBody(body: RAPIER.RigidBody, state: Float64Array): void {
    const turn = STATE.rotation;
    body.setTranslation(vec(state, STATE.position), true);
    body.setRotation({ ...vec(state, turn), w: state[turn + 3] }, true);
    // A place is moved by the speed after its inner step: begun half of one back, a fall is ½ g t² to the last digit.
    const { x, y, z } = vec(state, STATE.velocity);
    body.setLinvel({ x, y: y + (GRAVITY * this.world.timestep) / (2 * INNER), z }, true);
    body.setAngvel(vec(state, STATE.spin), true);
  }

  step(): void {
    this.world.step();
    for (const body of this.pushed) {
      body.resetForces(false);
      body.resetTorques(false);
    }
    this.pushed.clear();
  }

  body(body: number, out: Float64Array, at: number): void {
    this.read(this.bodies[body], out, at);
  }

  way(body: number, out: Float64Array): void {
    const one = this.find(this.bodies[body]);
    const { x, y, z } = one.translation();
    const velocity = one.linvel();
    out[STATE.position] = x;
    out[STATE.position + 1] = y;
    out[STATE.position + 2] = z;
    out[STATE.velocity] = velocity.x;
    out[STATE.velocity + 1] = velocity.y;
    out[STATE.velocity + 2] = velocity.z;
  }

  private read(handle: number, out: Float64Array, at: number): void {
    const body = this.find(handle);
    const { x, y, z } = body.translation();
    const turn = body.rotation();
    const velocity = body.linvel();
    const spin = body.angvel();
    out[at] = x;
    out[at + 1] = y;
    out[at + 2] = z;
    out[at + 3] = turn.x;
    out[at + 4] = turn.y;
    out[at + 5] = turn.z;
    out[at + 6] = turn.w;
    out[at + 7] = velocity.x;
    out[at + 8] = velocity.y;
    out[at + 9] = velocity.z;
    out[at + 10] = spin.x;
    out[at + 11] = spin.y;
    out[at + 12] = spin.z;
  }

  save(): Uint8Array {
    return this.world.takeSnapshot();
  }

  load(saved: Uint8Array): void {
    this.world.free();
    this.found.clear();
    this.pushed.clear();
    this.world = RAPIER.World.restoreSnapshot(saved);
  }

  close(): void {
    this.world.free();
  }
}

function shapeOf({ shape }: BodySpec): RAPIER.ColliderDesc {
  if (shape.kind === 'ball') return RAPIER.ColliderDesc.ball(shape.radius);
  if (shape.kind === 'box') return RAPIER.ColliderDesc.cuboid(...shape.half);
  if (shape.kind === 'cylinder') {
    const turn = quat.rotationTo([0, 0, 0, 1], [0, 1, 0], shape.axis) as Quat;
    return RAPIER.ColliderDesc.cylinder(shape.half, shape.radius).setRotation(xyzw(turn));
  }
  const hull = RAPIER.ColliderDesc.convexHull(Float32Array.from(shape.points));
  // Places that all lie in one plane have no hull.
  if (hull) return hull;
  const most = Math.max(1e-3, ...shape.points.map(Math.abs));
  return RAPIER.ColliderDesc.ball(most);
}
