import type { Physics, PhysicsWorld, WorldSpec } from './physics.js';
import type { Stepped } from './simulation.js';

/** Something stepped that is a world of bodies. */
export abstract class SteppedWorld implements Stepped {
  abstract readonly size: number;
  private opened: PhysicsWorld | null = null;

  constructor(private readonly physics: Physics) {}

  abstract begin(inputs: Float64Array, out: Float64Array, at: number): void;
  abstract step(before: Float64Array, after: Float64Array, out: Float64Array, at: number): void;

  /** Begins with a world; one that there was is gone. */
  protected open(spec: WorldSpec): PhysicsWorld {
    this.opened?.close();
    return (this.opened = this.physics.open(spec));
  }

  protected get world(): PhysicsWorld {
    if (this.opened === null) throw new Error('It was not begun.');
    return this.opened;
  }

  /** Bodies are moved in single precision. */
  rounded(value: number): number {
    return Math.fround(value);
  }

  save(): Uint8Array {
    return this.world.save();
  }

  load(saved: Uint8Array): void {
    this.world.load(saved);
  }

  close(): void {
    this.opened?.close();
    this.opened = null;
  }
}
