import type { GroundSurface } from '../src/geometry/ground/ground-surface.js';
import type { FindingKind } from '../src/document/shot-checks.js';
import type { Loose } from '../src/document/new-shot.js';
import type { ShotPath } from '../src/document/shot-path.js';
import type { Rider } from '../src/document/shot-rider.js';
import type { Shot } from '../src/document/shot.js';
import type { TriangleMesh } from '../src/geometry/solid/triangle-mesh.js';

/** A fault that is planted, where it has to be found, and what cures it. */
export interface Planted {
  readonly kind: FindingKind;
  readonly paths: Loose<ShotPath>[];
  readonly riders: Loose<Rider>[];
  readonly rest?: Loose<Omit<Shot, 'format' | 'version' | 'name'>>;
  readonly ground?: GroundSurface | null;
  readonly staticSet?: TriangleMesh;
  /** Message that the finding must have. */
  readonly said: Record<string, unknown>;
  /** Buttons that are offered; none where nothing cures it. */
  readonly cures: readonly string[];
}

/** A number that is about another one, as an expectation. */
export const about = (value: number, within = 0.02) => ({
  asymmetricMatch: (other: unknown) => typeof other === 'number' && Math.abs(other - value) <= within,
});
