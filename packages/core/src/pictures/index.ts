export * from './picture-plan.js';
export { FIRST_VIEW, firstDistance, firstEye } from './first-eye.js';
export type * from './pool.js';
