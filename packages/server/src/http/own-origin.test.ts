import type { Request, Response } from 'express';
import { ownOriginOnly } from './own-origin.js';

/** The status a request to port 4170 with these headers is refused with, or null where it goes on. */
function refusal(headers: Record<string, string>): number | null {
  let status: number | null = null;
  const response = {
    status: (code: number) => {
      status = code;
      return { json: () => undefined };
    },
  };
  const request = { headers, socket: { localPort: 4170 } };
  ownOriginOnly(request as unknown as Request, response as unknown as Response, () => undefined);
  return status;
}

it.each([
  [{ host: '127.0.0.1:4170' }],
  [{ host: 'localhost:4170' }],
  [{ host: '[::1]:4170' }],
  [{ host: '127.0.0.1:4170', origin: 'http://127.0.0.1:4170' }],
])('answers %j', (headers) => {
  expect(refusal(headers as Record<string, string>)).toBeNull();
});

it.each([
  [{}],
  [{ host: 'fleet.example' }],
  [{ host: 'fleet.example:4170' }],
  [{ host: '127.0.0.1:80' }],
  [{ host: '127.0.0.1.fleet.example:4170' }],
  [{ host: '127.0.0.1:4170', origin: 'null' }],
  [{ host: '127.0.0.1:4170', origin: 'http://127.0.0.1:4171' }],
  [{ host: '127.0.0.1:4170', origin: 'https://127.0.0.1:4170' }],
  [{ host: '127.0.0.1:4170', origin: 'http://localhost:4170' }],
])('refuses %j', (headers) => {
  expect(refusal(headers as Record<string, string>)).toBe(403);
});
