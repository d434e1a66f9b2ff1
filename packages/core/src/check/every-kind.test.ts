import { PLANTED, plantedScene } from '../../test/planted.js';
import { newShot } from '../document/new-shot.js';
import { evaluateShot } from '../shot/evaluate/evaluate-shot.js';
import { checkShot } from './check-shot.js';
import { fixesOf } from './fixes/fixes-of.js';

it.each(PLANTED.map((planted, i) => [`${planted.kind} (${i})`, planted] as const))(
  'finds %s where it is, and nothing else; and what cures it does',
  (_, planted) => {
    const { kind, said, cures } = planted;
    const { shot, assets, set } = plantedScene(planted);
    const evaluated = evaluateShot(shot, assets);
    const findings = checkShot(evaluated, set);
    expect(findings.map((finding) => finding.kind)).toEqual([kind]);
    expect(findings[0]).toMatchObject({ rider: findings[0].rider, ...said });
    const fixes = fixesOf(evaluated, set, findings[0]);
    expect(fixes.map(({ label }) => label)).toEqual(cures);
    for (const fix of fixes) {
      // The result is a document like any other, without the finding.
      const cured = newShot({ ...fix.shot });
      const left = checkShot(evaluateShot(cured, evaluated.assets), set);
      expect(left.filter((finding) => finding.kind === kind)).toEqual([]);
      expect(left.filter(({ severity }) => severity === 'fault')).toEqual([]);
    }
  },
);
