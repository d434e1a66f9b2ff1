import type { Request, Response } from 'express';
import { ownOriginOnly } from './own-origin.js';

/** The status a request to port 4170 with these headers is refused with, or null where it goes on. */
function refusal(headers: Record<string, string>, method = 'GET'): number | null {
  let status: number | null = null;
  const response = {
    status: (code: number) => {
      status = code;
      return { json: () => undefined };
    },
  };
  const request = { headers, method, socket: { localPort: 4170 } };
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

const host = '127.0.0.1:4170';

it.each<[string, Record<string, string>, number | null]>([
  ['GET', { 'sec-fetch-site': 'cross-site' }, 403],
  ['GET', { 'sec-fetch-site': 'same-site' }, 403],
  // A link on another site may open the application.
  ['GET', { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate' }, null],
  ['POST', { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'navigate' }, 403],
  ['POST', { 'sec-fetch-site': 'same-origin' }, null],
  ['POST', { origin: 'http://127.0.0.1:4170' }, null],
  ['POST', { 'content-type': 'application/json; charset=utf-8' }, null],
  ['DELETE', { 'x-fleet-rail': '1' }, null],
  // As a form of another site could send them, from a browser that says nothing more.
  ['POST', {}, 403],
  ['POST', { 'content-type': 'text/plain' }, 403],
  ['POST', { 'content-type': 'multipart/form-data; boundary=x' }, 403],
  ['DELETE', {}, 403],
  ['GET', {}, null],
])('%s with %j is answered with %s', (method, headers, status) => {
  expect(refusal({ host, ...headers }, method)).toBe(status);
});
