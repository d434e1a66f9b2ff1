import type { Vec3 } from './vector.js';
import { Id, Point, Name } from './constraints.js';

/** A view of the stage that is kept by name: where it is looked from, and at what. */
export class KeptView {
  @Id() id!: string;
  @Name() name!: string;
  @Point() from!: Vec3;
  @Point() at!: Vec3;
}
