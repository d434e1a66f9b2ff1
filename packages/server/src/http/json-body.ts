import type { NextFunction, Request, Response } from 'express';
import { JsonScan, type JsonLimits } from './json-scan.js';

/** A document has a value or key for every three bytes or more and a few hundred different keys, so all of 64 MB passes. */
const LIMITS: JsonLimits = { bytes: 64 * 2 ** 20, values: 24e6, depth: 64, keys: 10_000 };
/** From this on a body is parsed in a thread: a megabyte takes the server some 50 ms. */
const LARGE = 2 ** 20;

/** A JSON body that was weighed and is not parsed yet. */
export class LargeBody {
  constructor(readonly bytes: Buffer) {}
}

/** Refuses compressed bodies: a hundred bytes may unpack to a gigabyte. */
export function refuseCompressed(request: Request, response: Response, next: NextFunction): void {
  const encoding = request.headers['content-encoding'] ?? 'identity';
  if (encoding === 'identity') return next();
  refuse(
    request,
    response,
    415,
    `Content-Encoding: found "${encoding.slice(0, 40)}"; expected a body that is not compressed.`,
  );
}

/** Refuses bodies that declare more bytes than are taken, before any of it is read into memory. */
export const refuseLargerThan =
  (bytes: number) =>
  (request: Request, response: Response, next: NextFunction): void => {
    const declared = Number(request.headers['content-length'] ?? 0);
    if (declared <= bytes) return next();
    const found = `${Math.ceil(declared / 2 ** 20)} MB`;
    refuse(
      request,
      response,
      413,
      `The body has ${found}; expected at most ${Math.floor(bytes / 2 ** 20)} MB.`,
    );
  };

/** Reads JSON bodies: weighed as they come in, the small ones parsed, the large ones left to a thread as {@link LargeBody}. */
export function readJsonBody(request: Request, response: Response, next: NextFunction): void {
  if (!request.is('application/json')) return next();
  const declared = Number(request.headers['content-length'] ?? 0);
  if (declared > LIMITS.bytes) {
    refuse(request, response, 413, `The JSON has over ${LIMITS.bytes / 2 ** 20} MB; expected at most that.`);
    return;
  }
  const scan = new JsonScan(LIMITS);
  const parts: Buffer[] = [];
  let isOver = false;
  request.on('data', (part: Buffer) => {
    if (isOver) return;
    const problem = scan.take(part);
    if (problem === null) {
      parts.push(part);
      return;
    }
    isOver = true;
    parts.length = 0;
    refuse(request, response, 413, problem);
  });
  // A client that broke off waits for no answer.
  request.on('error', () => undefined);
  request.on('end', () => {
    if (isOver) return;
    const bytes = Buffer.concat(parts);
    if (bytes.length >= LARGE) {
      request.body = new LargeBody(bytes);
      return next();
    }
    // An empty body is none, as for a change that needs no words.
    if (bytes.length === 0) return next();
    try {
      request.body = parseBody(bytes.toString('utf8'));
    } catch (error) {
      refuse(request, response, 400, (error as Error).message);
      return;
    }
    next();
  });
}

/**
 * Parses a body.
 *
 * @throws Error in words for what is no JSON object
 */
export function parseBody(text: string): object {
  let body: unknown;
  try {
    body = JSON.parse(text);
  } catch (error) {
    throw new Error(`The body is not valid JSON: ${(error as Error).message.slice(0, 200)}.`, {
      cause: error,
    });
  }
  if (typeof body === 'object' && body !== null && !Array.isArray(body)) return body;
  throw new Error('The body is not a JSON object.');
}

/** Answers immediately and drains the rest of the body, so that the sender can read the answer. */
function refuse(request: Request, response: Response, statusCode: number, message: string): void {
  request.resume();
  response.status(statusCode).json({ statusCode, message });
}
