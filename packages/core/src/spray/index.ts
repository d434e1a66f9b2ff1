export { BIRTH, PARTICLE, aliveAt, mostAlive, particleAt, type Flight, type Spray } from './spray.js';
export { compileSpray, writePlace, type EmitterAt, type EmitterWay } from './births.js';
