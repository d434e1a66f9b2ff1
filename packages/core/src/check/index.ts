export { checkShot } from './check-shot.js';
export type { Finding } from './finding.js';
