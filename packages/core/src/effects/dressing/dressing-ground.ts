import { GroundSurface } from '../../geometry/ground/ground-surface.js';
import type { Dressing } from '../../document/shot-dressing.js';
import type { Shot } from '../../document/shot.js';
import { PathError } from '../../geometry/path/path-error.js';
import { compiledPathOf } from '../../geometry/path/compiled-path-of.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';
import type { TriangleMesh } from '../../geometry/solid/triangle-mesh.js';
import { sweepProfile, type SweptMesh } from './sweep-profile.js';

interface Swept {
  readonly key: string;
  readonly mesh: SweptMesh | null;
}

/** By curve what was swept along it last: an edit of something else sweeps nothing. */
const swept = new WeakMap<CompiledPath, Map<string, Swept>>();

/** Profile swept along a path for one dressing, cached until it changes. */
export function sweptOf(laid: Dressing, path: CompiledPath): SweptMesh | null {
  // Its name and looks do not change the mesh.
  const key = JSON.stringify({ ...laid, name: '', color: '', ground: false });
  const known = swept.get(path) ?? new Map<string, Swept>();
  swept.set(path, known);
  const kept = known.get(laid.id);
  if (kept?.key === key) return kept.mesh;
  const mesh = sweepProfile(laid, path);
  known.set(laid.id, { key, mesh });
  return mesh;
}

/** Curve of a dressing; null if its path has none. */
export function dressingCurve(
  { paths }: Pick<Shot, 'paths'>,
  { path: id }: Pick<Dressing, 'path'>,
): CompiledPath | null {
  const path = paths.find((one) => one.id === id);
  const curve = path && compiledPathOf(path);
  return curve && !(curve instanceof PathError) ? curve : null;
}

/** Dressing that riders drive on: whether its profile counts as ground. */
export function isGroundDressing({ kind, ground }: Dressing): boolean {
  return kind === 'profile' && ground;
}

let last: {
  readonly base: GroundSurface | null;
  readonly meshes: readonly TriangleMesh[];
  readonly made: GroundSurface;
} | null = null;

/** By ground that was joined the ground it was joined to. */
const bases = new WeakMap<GroundSurface, { readonly base: GroundSurface | null }>();

/** The ground without dressing. */
export function groundItself(ground: GroundSurface | null): GroundSurface | null {
  const joined = ground && bases.get(ground);
  return joined ? joined.base : ground;
}

/** The ground with drivable dressing joined to it; the last result is cached. */
export function groundWithDressing(
  shot: Pick<Shot, 'paths' | 'dressing'>,
  base: GroundSurface | null,
): GroundSurface | null {
  const meshes = shot.dressing.filter(isGroundDressing).flatMap((laid) => {
    const curve = dressingCurve(shot, laid);
    const mesh = curve && sweptOf(laid, curve);
    return mesh ? [mesh] : [];
  });
  if (meshes.length === 0) return base;
  const same =
    last?.base === base &&
    last.meshes.length === meshes.length &&
    meshes.every((mesh, i) => last?.meshes[i] === mesh);
  if (last && same) return last.made;
  const tops = meshes.map(upperSide);
  const all = joined(base ? [base.mesh, ...tops] : tops);
  const made = new GroundSurface(base ? { ...all, level: base.mesh.level } : all);
  bases.set(made, { base });
  last = { base, meshes, made };
  return made;
}

/** Triangles of a mesh that face up: nobody drives on the underside of a slab. */
function upperSide({ positions: p, indices }: TriangleMesh): TriangleMesh {
  const kept: number[] = [];
  for (let t = 0; t < indices.length; t += 3) {
    const [a, b, c] = [3 * indices[t], 3 * indices[t + 1], 3 * indices[t + 2]];
    // Twice its area in plan, above 0 where its corners go round to the left as seen from above.
    const area = (p[b + 2] - p[a + 2]) * (p[c] - p[a]) - (p[b] - p[a]) * (p[c + 2] - p[a + 2]);
    if (area > 0) kept.push(indices[t], indices[t + 1], indices[t + 2]);
  }
  return { positions: p, indices: Uint32Array.from(kept) };
}

/** Triangles of several as one. */
export function joined(meshes: readonly TriangleMesh[]): TriangleMesh {
  const positions = new Float64Array(meshes.reduce((sum, mesh) => sum + mesh.positions.length, 0));
  const indices = new Uint32Array(meshes.reduce((sum, mesh) => sum + mesh.indices.length, 0));
  let [at, from] = [0, 0];
  for (const mesh of meshes) {
    positions.set(mesh.positions, at);
    for (let i = 0; i < mesh.indices.length; i++) indices[from + i] = mesh.indices[i] + at / 3;
    at += mesh.positions.length;
    from += mesh.indices.length;
  }
  return { positions, indices };
}
