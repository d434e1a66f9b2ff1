import { isAbsolute, join } from 'node:path';
import { readSettings } from './settings.js';

it('keeps its data in the project and listens on 4170 unless told otherwise', () => {
  const settings = readSettings({});
  expect(settings.port).toBe(4170);
  expect(isAbsolute(settings.dataFolder)).toBe(true);
  expect(settings.dataFolder.endsWith(`${join('/', 'data')}`)).toBe(true);
});

it('takes folder and port from the environment', () => {
  expect(readSettings({ FLEET_RAIL_DATA: '/tmp/somewhere', FLEET_RAIL_PORT: '0' })).toMatchObject({
    dataFolder: '/tmp/somewhere',
    port: 0,
  });
});

it.each(['http', '-1', '65536', '80.5'])('refuses the port %j', (port) => {
  expect(() => readSettings({ FLEET_RAIL_PORT: port })).toThrow(
    `FLEET_RAIL_PORT: found "${port}"; expected a port from 0 to 65535`,
  );
});
