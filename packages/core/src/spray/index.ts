export {
  BIRTH,
  MOST_IN_GLB,
  PARTICLE,
  aliveAt,
  everyInGlb,
  mostAlive,
  mostInGlb,
  particleAt,
  type Flight,
  type Spray,
} from './spray.js';
export { compileSpray, writePlace, type EmitterAt, type EmitterWay } from './births.js';
export { READY_SPRAYS, type ReadySpray } from './ready-sprays.js';
