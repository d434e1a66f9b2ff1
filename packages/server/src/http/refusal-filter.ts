import { Catch, type ArgumentsHost, type ExceptionFilter } from '@nestjs/common';
import { PathError, ShotError } from '@fleet-rail/core/shots';
import { FormatError } from '@fleet-rail/core/format-facts';
import type { Response } from 'express';
import { ThreadRefusal } from '../threads/work-threads.js';

/** Turns core's refusals of content into 422 with their message, and where it applies. */
@Catch(ShotError, FormatError, PathError, ThreadRefusal)
export class RefusalFilter implements ExceptionFilter {
  catch(error: ShotError | FormatError | PathError | ThreadRefusal, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    const path = error instanceof ShotError ? error.path : undefined;
    // Nothing is wrong with what was asked for where the server itself is about to stop.
    const status = error instanceof ThreadRefusal && error.reason === 'stopped' ? 503 : 422;
    response.status(status).json({ statusCode: status, message: error.message, path });
  }
}
