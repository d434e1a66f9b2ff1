import { Global, Module } from '@nestjs/common';
import { DocumentThreads } from './document-threads.js';

/** Documents that are too large to be read between two answers. */
@Global()
@Module({ providers: [DocumentThreads], exports: [DocumentThreads] })
export class DocumentsModule {}
