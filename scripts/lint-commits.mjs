// Checks the messages of all commits since the rules were introduced.
import { execFileSync, spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './install.mjs';

const RULES = 'commitlint.config.mjs';

/** Lines that git prints. */
function git(...args) {
  return execFileSync('git', args, { cwd: ROOT, encoding: 'utf8' }).trim().split('\n').filter(Boolean);
}

// A copy of the sources without their history has no commits to check.
if (existsSync(join(ROOT, '.git'))) {
  const [introduced] = git('log', '--diff-filter=A', '--format=%H', '-1', '--', RULES);
  if (introduced !== undefined && git('rev-list', `${introduced}..HEAD`).length > 0)
    process.exitCode = spawnSync('npx', ['commitlint', '--from', introduced, '--to', 'HEAD'], {
      cwd: ROOT,
      stdio: 'inherit',
    }).status;
}
