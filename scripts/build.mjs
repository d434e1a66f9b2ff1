// Compiles every package, builds the web application and makes the demo's models.
import { ROOT, run } from './install.mjs';

const node = process.execPath;
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
