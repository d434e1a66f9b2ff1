// Installs what is missing, builds, and serves; the server seeds the demo once and prints its address.
import { installPackages, run } from './install.mjs';

installPackages();
await import('./build.mjs');
try {
  run(process.execPath, ['packages/server/dist/main.js']);
} catch (error) {
  // The server has reported the reason.
  process.exit(error.status ?? 1);
}
