import type { SampledShot } from '../../shot/bake/sample-shot.js';
import type { Rider } from '../../document/shot-rider.js';
import { PARTICLE, aliveAt, particleAt, type Spray } from '../../effects/spray/spray.js';
import { linearColor } from '../glb-material.js';
import { singleText, singles, wholes, type UsdText } from './usd-text.js';

/**
 * Particles of a rider as a PointInstancer: every particle that is alive at a frame.
 *
 * @param prototype writes what a particle looks like, below the prim
 */
export function writeSpray(
  text: UsdText,
  name: string,
  path: string,
  rider: Rider,
  spray: Spray,
  { first, frames, seconds }: Pick<SampledShot, 'first' | 'frames' | 'seconds'>,
  prototype: (path: string) => void,
): void {
  const { emitter } = rider;
  if (emitter === null || spray.count === 0) return;
  const now = new Float64Array(PARTICLE.numbers);
  const [begin, end] = [linearColor(emitter.color), linearColor(emitter.fade ?? emitter.color)];
  const looks = Array.from({ length: frames }, (_, i) => {
    const look = {
      ids: [] as number[],
      at: [] as number[],
      turns: [] as string[],
      sizes: [] as number[],
      colours: [] as number[],
    };
    for (const { n, age } of aliveAt(spray, seconds[i])) {
      particleAt(spray, n, age, now);
      look.ids.push(n);
      look.at.push(now[0], now[1], now[2]);
      look.turns.push(`(${[3, 0, 1, 2].map((k) => singleText(now[PARTICLE.rotation + k])).join(', ')})`);
      look.sizes.push(now[PARTICLE.size], now[PARTICLE.size], now[PARTICLE.size]);
      look.colours.push(...begin.map((value, k) => value + now[PARTICLE.part] * (end[k] - value)));
    }
    return look;
  });
  const codes = looks.map((_, i) => first + i);
  text.prim('def', 'PointInstancer', name, [], () => {
    text.rel('prototypes', `${path}/Particle`);
    text.samples('int[] protoIndices', codes, (i) => wholes(new Uint8Array(looks[i].ids.length)));
    text.samples('int64[] ids', codes, (i) => wholes(looks[i].ids));
    text.samples('point3f[] positions', codes, (i) => singles(looks[i].at, 3));
    text.samples('quath[] orientations', codes, (i) => `[${looks[i].turns.join(', ')}]`);
    text.samples('float3[] scales', codes, (i) => singles(looks[i].sizes, 3));
    if (emitter.model === null)
      text.samples('color3f[] primvars:displayColor', codes, (i) => singles(looks[i].colours, 3), [
        'interpolation = "vertex"',
      ]);
    prototype(`${path}/Particle`);
  });
}
