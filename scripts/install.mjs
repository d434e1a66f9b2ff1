// Installs the packages when they are missing or no longer those of the lock file.
import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

export const ROOT = new URL('..', import.meta.url).pathname;

/** Runs a program in the project's folder; its output is this one's. Throws when it fails. */
export function run(program, args, options = {}) {
  execFileSync(program, args, { cwd: ROOT, stdio: 'inherit', ...options });
}

export function installPackages() {
  const lock = createHash('sha256')
    .update(readFileSync(join(ROOT, 'package-lock.json')))
    .digest('hex');
  const stamp = join(ROOT, 'node_modules/.fleet-rail-lock');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return;
  console.log('Installing packages (about five minutes the first time: the database driver is compiled) …');
  run('npm', ['ci', '--no-audit', '--no-fund']);
  writeFileSync(stamp, lock);
}
