import type { SampleChoice } from '../shot/bake/sample-shot.js';
import { sampleShot } from '../shot/bake/sample-shot.js';
import type { EvaluatedShot } from '../shot/evaluate/evaluate-shot.js';
import { LOCAL } from '../character/hierarchy/node-hierarchy.js';
import { DEGREES } from '../geometry/math/angle.js';
import { compileFocal, fieldOfView } from '../motion/pose/camera.js';
import { PARTICLE, aliveAt, particleAt } from '../effects/spray/spray.js';
import { sourceFrame } from '../motion/timing/retiming.js';
import { riderNames } from './rider-names.js';
import { quoted } from './csv-write.js';

/** A table as a file. */
export interface CsvTable {
  readonly name: string;
  readonly text: string;
}

/** Inputs of a rider's cycles, and their names in the column of phases. */
const PHASES = new Map([
  ['phase', 'walk'],
  ['cycle', 'cycle'],
]);

/**
 * Tables beside the CSV of poses: riders, sizes and shapes of parts, cameras, cuts, and phases of clips. Empty tables
 * are left out.
 */
export function csvTables(evaluated: EvaluatedShot, choice: SampleChoice = {}): CsvTable[] {
  const sampled = sampleShot(evaluated, choice);
  const { shot, first, frames, parts, cuts, sprays, seconds } = sampled;
  const particle = new Float64Array(PARTICLE.numbers);
  const rows = new Map<string, string[]>();
  const put = (table: string, head: string, ...values: (string | number)[]) => {
    const lines = rows.get(table) ?? [head];
    rows.set(table, lines);
    lines.push(values.map((value) => (typeof value === 'number' ? value : quoted(value))).join(','));
  };
  const names = riderNames(shot.riders);
  shot.riders.forEach(({ id, badge, kind, model, rest }, r) => {
    const of = shot.models.find((one) => one.id === model)?.name ?? '';
    put('riders', 'rider,name,badge,kind,model,sx,sy,sz', id, names[r], badge, kind, of, ...rest.scale);
  });
  const focals = shot.riders.map(({ camera }) => camera && compileFocal(camera));
  for (let i = 0; i < frames; i++) {
    const frame = first + i;
    const lead = [frame, (frame - first) / shot.fps];
    shot.riders.forEach((rider, r) => {
      const { nodes, size, values } = parts[r];
      for (const { name, at, weights } of nodes) {
        const from = i * size + at;
        const scale = values.subarray(from + LOCAL.scale, from + LOCAL.scale + 3);
        put('part-sizes', 'frame,time,rider,part,sx,sy,sz', ...lead, rider.id, name, ...scale);
        for (let k = 0; k < weights; k++) {
          const weight = values[from + LOCAL.size + k];
          put('shapes', 'frame,time,rider,part,shape,weight', ...lead, rider.id, name, k + 1, weight);
        }
      }
      const spray = sprays[r];
      for (const { n, age } of spray ? aliveAt(spray, seconds[i]) : []) {
        if (spray) particleAt(spray, n, age, particle);
        put('particles', 'frame,time,rider,particle,size', ...lead, rider.id, n + 1, particle[PARTICLE.size]);
      }
      const { camera } = rider;
      const focalAt = focals[r];
      if (camera && focalAt) {
        const focal = focalAt(sourceFrame(shot, frame));
        const view = fieldOfView(camera, focal) * DEGREES;
        const head = 'frame,time,rider,focal,sensor,aspect,view';
        put('cameras', head, ...lead, rider.id, focal, camera.sensor, camera.aspect, view);
      }
      for (const { kind, part, value } of evaluated.gauges(rider)) {
        const cycle = PHASES.get(kind);
        if (cycle)
          put('phases', 'frame,time,rider,of,part,phase', ...lead, rider.id, cycle, part, value(frame));
      }
    });
  }
  cuts.forEach(({ frame, camera }, i) => {
    // The camera at the first exported frame becomes a cut there.
    const from = Math.max(first, frame);
    if (from > first + frames - 1 || (cuts[i + 1]?.frame ?? Infinity) <= first) return;
    put('cuts', 'frame,time,rider', from, (from - first) / shot.fps, camera);
  });
  return [...rows].map(([name, lines]) => ({ name: `${name}.csv`, text: `${lines.join('\n')}\n` }));
}
