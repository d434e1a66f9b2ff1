import 'reflect-metadata';
import type { AddressInfo } from 'node:net';
import { createApp } from './create-app.js';
import { FolderInUse, FolderLock } from './database/folder-lock.js';
import { catchWhatNobodyDoes } from './http/last-resort.js';
import { LISTEN_ADDRESS, readSettings } from './settings.js';

/** Milliseconds for open requests to end when the server is stopped. */
const LAST_WORDS = 1_500;

async function start(): Promise<void> {
  const settings = readSettings(process.env);
  const app = await createApp(settings);
  const server = await app.listen(settings.port, LISTEN_ADDRESS);
  // Work still running is dropped: every acknowledged save is in the database.
  for (const signal of ['SIGTERM', 'SIGINT'] as const)
    process.on(signal, () => setTimeout(() => process.exit(0), LAST_WORDS).unref());
  catchWhatNobodyDoes();
  const { port } = server.address() as AddressInfo;
  const address = `http://${LISTEN_ADDRESS}:${port}/`;
  app.get(FolderLock).note(address);
  console.log(`Fleet Rail is at ${address}`);
}

start().catch((error: NodeJS.ErrnoException) => {
  const taken = error.code === 'EADDRINUSE';
  console.error(
    error instanceof FolderInUse
      ? error.message
      : taken
        ? 'The port is taken by another program; set FLEET_RAIL_PORT to a free one.'
        : `Fleet Rail could not start: ${error.message}`,
  );
  process.exit(1);
});
