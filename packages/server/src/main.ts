import 'reflect-metadata';
import type { AddressInfo } from 'node:net';
import { createApp } from './create-app.js';
import { LISTEN_ADDRESS, readSettings } from './settings.js';

async function start(): Promise<void> {
  const settings = readSettings(process.env);
  const app = await createApp(settings);
  const server = await app.listen(settings.port, LISTEN_ADDRESS);
  const { port } = server.address() as AddressInfo;
  console.log(`Fleet Rail is at http://${LISTEN_ADDRESS}:${port}/`);
}

start().catch((error: NodeJS.ErrnoException) => {
  const taken = error.code === 'EADDRINUSE';
  console.error(
    taken
      ? 'The port is taken by another program; set FLEET_RAIL_PORT to a free one.'
      : `Fleet Rail could not start: ${error.message}`,
  );
  process.exit(1);
});
