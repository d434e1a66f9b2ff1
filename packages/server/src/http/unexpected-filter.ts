import { Catch, HttpException, Logger, type ArgumentsHost, type ExceptionFilter } from '@nestjs/common';
import type { Response } from 'express';

/** Answer to an unforeseen failure. */
export const UNEXPECTED = 'The server could not do this; its log has the details. Nothing was changed.';

/** The last resort: no stack trace leaves the server, but every one is logged. */
@Catch()
export class UnexpectedFilter implements ExceptionFilter {
  private readonly log = new Logger('Server');

  catch(error: unknown, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    if (response.headersSent) {
      response.end();
      return;
    }
    const status = isFull(error) ? 507 : statusOf(error);
    if (status >= 500) this.log.error(error instanceof Error ? error.stack : String(error));
    response.status(status).json(bodyOf(error, status));
  }
}

/** Express and its parsers put a status on their own errors (400 for broken JSON, 413 for too much). */
function statusOf(error: unknown): number {
  if (error instanceof HttpException) return error.getStatus();
  const status = (error as { status?: unknown } | null)?.status;
  return typeof status === 'number' && status >= 400 && status < 500 ? status : 500;
}

/** Whether the disk has no room: of a file, or of the database. */
function isFull(error: unknown): boolean {
  const { code, driverError } = (error ?? {}) as { code?: string; driverError?: { code?: string } };
  return [code, driverError?.code].some(
    (one) => one === 'ENOSPC' || one === 'EDQUOT' || one === 'SQLITE_FULL',
  );
}

function bodyOf(error: unknown, statusCode: number): object {
  if (statusCode === 507) {
    const message =
      'The disk is full: nothing was changed. Make room; edits of a shot are kept in this browser until then.';
    return { statusCode, message };
  }
  if (error instanceof HttpException) {
    const body = error.getResponse();
    return typeof body === 'string' ? { statusCode, message: body } : body;
  }
  const message = statusCode === 500 ? UNEXPECTED : (error as Error).message;
  return { statusCode, message };
}
