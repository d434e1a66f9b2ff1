import { Catch, type ArgumentsHost, type ExceptionFilter } from '@nestjs/common';
import { PathError, ShotError } from '@fleet-rail/core';
import { FormatError } from '@fleet-rail/core/formats';
import type { Response } from 'express';

/** Turns core's refusals of content into 422 with their message, and where it applies. */
@Catch(ShotError, FormatError, PathError)
export class RefusalFilter implements ExceptionFilter {
  catch(error: ShotError | FormatError | PathError, host: ArgumentsHost): void {
    const response = host.switchToHttp().getResponse<Response>();
    const path = error instanceof ShotError ? error.path : undefined;
    response.status(422).json({ statusCode: 422, message: error.message, path });
  }
}
