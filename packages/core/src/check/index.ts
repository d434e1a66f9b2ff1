export { checkShot } from './check-shot.js';
export { NO_SCENE, type CheckScene, type CheckedModel } from './check-scene.js';
export { ShotChecker } from './shot-checker.js';
export { isDismissalOf, type Finding, type FixKind, type Severity } from './finding.js';
export { reportCsv, reportJson, reportText, summaryOf } from './report.js';
export { fixesOf } from './fixes/fixes-of.js';
export type { Fix } from './fixes/fix.js';
