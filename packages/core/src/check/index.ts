export { checkShot } from './check-shot.js';
export { NO_SCENE, type CheckScene, type CheckedModel } from './check-scene.js';
export { ShotChecker } from './shot-checker.js';
export { isWaiverOf, type Finding, type RemedyKind, type Severity } from './finding.js';
export { reportCsv, reportText, summaryOf } from './report.js';
export { remediesOf } from './remedies/remedies-of.js';
export type { Remedy } from './remedies/remedy.js';
