import 'reflect-metadata';
import { HttpException } from '@nestjs/common';
import { ShotError } from '@fleet-rail/core/shots';
import { BodyPipe } from '../http/body-pipe.js';
import { parseBody } from '../http/json-body.js';
import { CheckedPlan } from '../pool/checked-plan.js';
import { NewJobDto } from '../pool/pool.dto.js';
import { CreateShotDto, SaveShotDto } from '../shots/shots.dto.js';
import { serveJobs } from '../threads/serve-jobs.js';
import { CheckedShot } from './checked-shot.js';
import type { CheckedText, DocumentAnswer, DocumentJob } from './document-job.js';

/** Requests whose bodies may be large. */
const CLASSES: Readonly<Record<string, new () => object>> = { CreateShotDto, SaveShotDto, NewJobDto };
const pipe = new BodyPipe(null);

serveJobs<DocumentJob, DocumentAnswer>(async function* (job) {
  try {
    if ('document' in job) yield { columns: CheckedShot.of(parsed(job.document)).columns };
    else yield await readBody(Buffer.from(job.body).toString('utf8'), job.as);
  } catch (error) {
    yield { refused: refusalOf(error) };
  }
});

async function readBody(text: string, as: string): Promise<DocumentAnswer> {
  const metatype = CLASSES[as];
  const body = (await pipe.transform(parsed(text), { type: 'body', metatype })) as Record<string, unknown>;
  const rest: Record<string, unknown> = {};
  const checked: Record<string, CheckedText> = {};
  for (const [key, value] of Object.entries(body)) {
    if (value instanceof CheckedShot) checked[key] = { shot: value.columns };
    else if (value instanceof CheckedPlan) checked[key] = { plan: value.plan };
    else rest[key] = value;
  }
  // Instances of classes do not travel between threads; plain values do.
  return { body: JSON.parse(JSON.stringify(rest)) as Record<string, unknown>, checked };
}

function parsed(text: string): object {
  try {
    return parseBody(text);
  } catch (error) {
    throw new HttpException({ statusCode: 400, message: (error as Error).message }, 400);
  }
}

function refusalOf(error: unknown): { status: number; body: object } {
  if (error instanceof ShotError)
    return { status: 422, body: { statusCode: 422, message: error.message, path: error.path } };
  if (error instanceof HttpException)
    return { status: error.getStatus(), body: error.getResponse() as object };
  throw error;
}
