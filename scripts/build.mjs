// Compiles every package, builds the web application and makes the demo's models; what is built already stays.
import { createHash } from 'node:crypto';
import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT, run } from './install.mjs';

const node = process.execPath;
const STAMP = join(ROOT, 'node_modules/.fleet-rail-built');
/** Outputs of a build; if one is missing it has to run again. */
const MADE = [
  'packages/core/dist/index.js',
  'packages/server/dist/main.js',
  'packages/cli/dist/main.js',
  'packages/web/dist/index.html',
  'demo/made/quillfen-orchard.shot.json',
];

/** A digest of all inputs of a build: the files that git knows or would add, and the installed packages. */
function digestOfSources() {
  const digest = createHash('sha256');
  const list = execFileSync('git', ['ls-files', '-co', '--exclude-standard', '-z'], {
    cwd: ROOT,
    maxBuffer: 1 << 28,
  });
  for (const file of list.toString('utf8').split('\0').sort()) {
    if (
      !/^(packages|demo|fuzz|e2e|types|scripts)\/|^[^/]+\.json$/.test(file) ||
      !existsSync(join(ROOT, file))
    )
      continue;
    digest.update(file).update(readFileSync(join(ROOT, file)));
  }
  return digest.digest('hex');
}

/** The digest, or null where there is no git to ask. */
function sources() {
  try {
    return digestOfSources();
  } catch {
    return null;
  }
}

const wanted = sources();
const isBuilt =
  wanted !== null &&
  existsSync(STAMP) &&
  readFileSync(STAMP, 'utf8') === wanted &&
  MADE.every((file) => existsSync(join(ROOT, file)));
if (!isBuilt) {
  run(node, [
    'node_modules/typescript/bin/tsc',
    '-b',
    'packages/core',
    'packages/server',
    'packages/cli',
    'demo',
    'fuzz',
    'packages/web',
    'e2e',
  ]);
  run(node, ['demo/dist/make-demo.js']);
  run(node, ['../../node_modules/vite/bin/vite.js', 'build', '--logLevel', 'warn'], {
    cwd: `${ROOT}packages/web`,
  });
  if (wanted !== null) writeFileSync(STAMP, wanted);
}
