import { Module } from '@nestjs/common';
import { LibraryThreads } from './library-threads.js';

@Module({ providers: [LibraryThreads], exports: [LibraryThreads] })
export class LibraryThreadsModule {}
