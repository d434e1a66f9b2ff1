import type { Pace } from '../../document/shot-pace.js';
import { compilePace } from './compile-pace.js';
import type { CompiledPace } from './compiled-pace.js';
import type { CompiledPath } from '../../geometry/path/compiled-path.js';

const compiledPaces = new WeakMap<Pace, { fps: number; path: CompiledPath; compiled: CompiledPace }>();

/** A pace of the document on a path, computed once for as long as neither changes. */
export function compiledPaceOf(pace: Pace, fps: number, path: CompiledPath): CompiledPace {
  const cached = compiledPaces.get(pace);
  if (cached?.fps === fps && cached.path === path) return cached.compiled;
  const compiled = compilePace(pace, fps, path);
  compiledPaces.set(pace, { fps, path, compiled });
  return compiled;
}
