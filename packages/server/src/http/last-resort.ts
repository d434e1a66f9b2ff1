import { AsyncLocalStorage } from 'node:async_hooks';
import { Logger } from '@nestjs/common';
import type { NextFunction, Request, Response } from 'express';
import { UNEXPECTED } from './unexpected-filter.js';

const answering = new AsyncLocalStorage<Response>();

/** Remembers, for all that a request sets off, who waits for its answer. */
export function rememberRequest(_: Request, response: Response, next: NextFunction): void {
  answering.run(response, next);
}

/**
 * Catches what nothing else does, such as an `error` event without a listener: it is logged, and the request that
 * caused it is answered with 500. The process continues, since the database is written in transactions and files are
 * stored whole or not at all.
 */
export function catchWhatNobodyDoes(): void {
  const log = new Logger('Server');
  process.on('uncaughtException', (error: unknown, origin) => {
    log.error(`${origin}: ${error instanceof Error ? error.stack : String(error)}`);
    const response = answering.getStore();
    if (response === undefined || response.writableEnded) return;
    if (response.headersSent) {
      response.destroy();
      return;
    }
    response.status(500).json({ statusCode: 500, message: UNEXPECTED });
  });
}
