import { HttpException, Injectable, type OnModuleDestroy } from '@nestjs/common';
import { CheckedPlan } from '../pool/checked-plan.js';
import { WorkThreads, threadScript } from '../threads/work-threads.js';
import { CheckedShot } from './checked-shot.js';
import type { DocumentAnswer, DocumentJob } from './document-job.js';

/** Reads and checks large documents in threads, so that nobody waits for them. The largest allowed takes some seconds. */
@Injectable()
export class DocumentThreads implements OnModuleDestroy {
  private readonly threads = new WorkThreads<DocumentJob, DocumentAnswer>(
    threadScript('documents/document-worker'),
    'Reading this document',
    { threads: 2, seconds: 60, megabytes: 3072 },
  );

  /**
   * Reads a body as a class of request: its documents and plans are checked, all else is as it was sent.
   *
   * @throws HttpException with what is wrong with it
   */
  async readBody(bytes: Buffer, as: string): Promise<Record<string, unknown>> {
    const answer = await this.ask({ body: bytes, as });
    if (!('body' in answer)) throw new Error('A body was asked for.');
    const body = { ...answer.body };
    for (const [key, text] of Object.entries(answer.checked))
      body[key] = 'shot' in text ? new CheckedShot(text.shot) : new CheckedPlan(text.plan);
    return body;
  }

  /** Checks a stored document and completes what an earlier version did not know. */
  async check(document: string): Promise<CheckedShot> {
    const answer = await this.ask({ document });
    if (!('columns' in answer)) throw new Error('A document was asked for.');
    return new CheckedShot(answer.columns);
  }

  private async ask(job: DocumentJob): Promise<DocumentAnswer> {
    const answer = await this.threads.answer(job);
    if ('refused' in answer) throw new HttpException(answer.refused.body, answer.refused.status);
    return answer;
  }

  onModuleDestroy(): Promise<void> {
    return this.threads.close();
  }
}
