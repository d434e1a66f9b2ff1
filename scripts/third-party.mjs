// Writes THIRD_PARTY.md: packages that the product runs with, their versions and licences. With --check it only compares.
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './install.mjs';

const PAGE = join(ROOT, 'THIRD_PARTY.md');
const PLACE = 'node_modules/';

const read = (path) => JSON.parse(readFileSync(join(ROOT, path), 'utf8'));

/** Licence of a package whose entry in the lock names none: old packages have a list. */
function licenceAt(place) {
  const { license, licenses } = read(`${place}/package.json`);
  return license ?? licenses.map(({ type }) => type).join(' AND ');
}

const rows = Object.entries(read('package-lock.json').packages)
  .filter(([place, { dev, link }]) => place.includes(PLACE) && !dev && !link)
  .map(([place, { version, license }]) => {
    const name = place.slice(place.lastIndexOf(PLACE) + PLACE.length);
    return `| ${name} | ${version} | ${license ?? licenceAt(place)} |`;
  });

const page = `# Third-party packages

Fleet Rail runs with these packages; each keeps its own licence, which lies beside its code in \`node_modules\`. Written by
\`npm run docs\` from \`package-lock.json\`.

\`sharp\` and its libvips (LGPL-3.0-or-later) come with \`@gltf-transform/functions\`, which loads them when it is imported
on Node. Fleet Rail calls none of their functions.

| Package | Version | Licence |
| --- | --- | --- |
${[...new Set(rows)].sort().join('\n')}
`;

if (!process.argv.includes('--check')) writeFileSync(PAGE, page);
else if (!existsSync(PAGE) || readFileSync(PAGE, 'utf8') !== page) {
  console.error('THIRD_PARTY.md is older than package-lock.json: run npm run docs.');
  process.exit(1);
}
