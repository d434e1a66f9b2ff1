// Types, lint, unit tests, end-to-end tests; the last line counts what passed and what failed.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { ROOT, installPackages } from './install.mjs';

/** By Debian's package its program. */
const TOOLS = { chromium: '/usr/bin/chromium', ffmpeg: '/usr/bin/ffprobe' };
const results = mkdtempSync(join(tmpdir(), 'fleet-rail-test-'));
let passed = 0;
let failed = 0;
/** Names and milliseconds of tests. */
const times = [];

/** Runs a program; true when it ends well. */
function runs(program, args, env = {}) {
  const { status } = spawnSync(program, args, {
    cwd: ROOT,
    stdio: 'inherit',
    env: { ...process.env, ...env },
  });
  return status === 0;
}

/** A step that counts as one check. */
function step(name, program, args) {
  console.log(`\n— ${name}`);
  if (runs(program, args)) passed++;
  else failed++;
}

/** A test run that writes its counts to a file; one that ends badly without a failed test is one failure. */
function suite(name, program, args, file, env, read) {
  console.log(`\n— ${name}`);
  const well = runs(program, args, env);
  const counts = existsSync(file) ? read(JSON.parse(readFileSync(file, 'utf8'))) : { passed: 0, failed: 0 };
  passed += counts.passed;
  failed += counts.failed === 0 && !well ? 1 : counts.failed;
}

/** The browser the tests drive, and what reads films back that others wrote. */
function installTools() {
  const missing = Object.entries(TOOLS).flatMap(([name, program]) => (existsSync(program) ? [] : [name]));
  if (missing.length === 0) return;
  console.log(`Installing ${missing.join(' and ')} …`);
  runs('apt-get', ['update', '-qq']);
  runs('apt-get', ['install', '-y', '-qq', ...missing], { DEBIAN_FRONTEND: 'noninteractive' });
}

installPackages();
installTools();

const node = process.execPath;
step('build', node, ['scripts/build.mjs']);
step('types and lint', 'npm', ['run', '-s', 'lint']);

const unit = join(results, 'unit.json');
suite(
  'unit tests',
  'npm',
  ['run', '-s', 'unit', '--', '--json', `--outputFile=${unit}`],
  unit,
  {},
  (report) => {
    for (const { name, assertionResults } of report.testResults)
      for (const { fullName, duration } of assertionResults)
        times.push({ name: `${relative(ROOT, name)} › ${fullName}`, ms: duration ?? 0 });
    return {
      passed: report.numPassedTests,
      failed: report.numFailedTests + report.numRuntimeErrorTestSuites,
    };
  },
);

const e2e = join(results, 'e2e.json');
suite(
  'end-to-end tests',
  'npm',
  ['run', '-s', 'e2e', '--', '--reporter=list,json'],
  e2e,
  { PLAYWRIGHT_JSON_OUTPUT_NAME: e2e },
  ({ stats, suites }) => {
    for (const { file, specs } of suites)
      for (const { title, tests } of specs)
        for (const { results: runs } of tests)
          times.push({
            name: `${file} › ${title}`,
            ms: runs.reduce((sum, { duration }) => sum + duration, 0),
          });
    return { passed: stats.expected, failed: stats.unexpected + stats.flaky };
  },
);

rmSync(results, { recursive: true, force: true });
console.log('\n— the ten slowest tests');
for (const { name, ms } of times.sort((a, b) => b.ms - a.ms).slice(0, 10))
  console.log(`${(ms / 1000).toFixed(1).padStart(6)} s  ${name}`);
console.log(`\n${passed} passed, ${failed} failed`);
process.exit(failed === 0 ? 0 : 1);
