// Writes the field tables of the shot file's page from the classes of the document.
import { execFileSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './install.mjs';

const PAGE = join(ROOT, 'docs/shot-file.md');
const MARK = '<!-- fields -->\n';

const [meaning] = readFileSync(PAGE, 'utf8').split(MARK);
const ride = join(ROOT, 'packages/cli/dist/main.js');
const tables = execFileSync(process.execPath, [ride, 'schema', '--tables'], { encoding: 'utf8' });
writeFileSync(PAGE, `${meaning}${MARK}\n${tables.trim()}\n`);
