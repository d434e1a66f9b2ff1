export { checkShot, checkWhole, worstFirst } from './check-shot.js';
export { findContact } from './contact-findings.js';
export type { Finding } from './finding.js';
